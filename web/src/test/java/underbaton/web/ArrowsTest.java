package underbaton.web;

import static com.tngtech.archunit.base.DescribedPredicate.describe;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.core.importer.Location;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.junit.ArchTests;
import com.tngtech.archunit.lang.ArchRule;
import java.util.List;

/** The arrows between the modules: none runs back. */
@AnalyzeClasses(
        packages = "underbaton",
        importOptions = {ImportOption.DoNotIncludeTests.class, ArrowsTest.WithoutTestsOfOtherModules.class})
class ArrowsTest {

    /** Core's made-up shows come along as an archive, or as its folder of tests. */
    static final class WithoutTestsOfOtherModules implements ImportOption {
        @Override
        public boolean includes(Location location) {
            return !location.contains("-tests.jar") && !location.contains("/test-classes/");
        }
    }

    private static final List<String> LOWER_FLOORS = List.of(
            "underbaton.web.stage",
            "underbaton.web.record",
            "underbaton.web.library",
            "underbaton.web.kernel",
            "underbaton.web.access",
            "underbaton.web.live");

    @ArchTest
    static final ArchRule MODULES = layeredArchitecture()
            .consideringOnlyDependenciesInAnyPackage("underbaton..")
            .layer("core")
            .definedBy("underbaton.core..")
            .layer("wire")
            .definedBy("underbaton.wire..")
            .layer("standins")
            .definedBy("underbaton.standins..")
            .layer("web")
            .definedBy("underbaton.web..")
            .whereLayer("web")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("standins")
            .mayOnlyBeAccessedByLayers("web")
            .whereLayer("wire")
            .mayOnlyBeAccessedByLayers("standins", "web")
            .whereLayer("core")
            .mayOnlyBeAccessedByLayers("wire", "standins", "web");

    /** Down only: what all stand on, the shows kept, the show that runs and what is written down of it, the pages. */
    @ArchTest
    static final ArchRule FLOORS_OF_WEB = layeredArchitecture()
            .consideringOnlyDependenciesInAnyPackage("underbaton.web..")
            .layer("top")
            .definedBy("underbaton.web")
            .layer("pages")
            .definedBy(describe(
                    "pages",
                    c -> c.getPackageName().startsWith("underbaton.web.")
                            && LOWER_FLOORS.stream().noneMatch(c.getPackageName()::equals)))
            .layer("running")
            .definedBy("underbaton.web.stage", "underbaton.web.record")
            .layer("library")
            .definedBy("underbaton.web.library")
            .layer("kernel")
            .definedBy("underbaton.web.kernel", "underbaton.web.access", "underbaton.web.live")
            .whereLayer("top")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("pages")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("running")
            .mayOnlyBeAccessedByLayers("pages", "top")
            .whereLayer("library")
            .mayOnlyBeAccessedByLayers("running", "pages", "top");

    @ArchTest
    static final ArchRule PACKAGES_OF_WEB_GO_IN_NO_CIRCLE =
            slices().matching("underbaton.web.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule PACKAGES_OF_CORE_GO_IN_NO_CIRCLE =
            slices().matching("underbaton.core.(*)..").should().beFreeOfCycles();

    /** Stand-ins speak the wire's messages and tell the wire's time; they take no short cut into the book. */
    @ArchTest
    static final ArchRule STAND_INS_KNOW_NO_BOOK = noClasses()
            .that()
            .resideInAPackage("underbaton.standins..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("underbaton.core.cue..", "underbaton.core.plan..", "underbaton.core.rig..");

    @ArchTest
    static final ArchRule CORE_IS_PLAIN_JAVA = noClasses()
            .that()
            .resideInAPackage("underbaton.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.springframework..", "java.sql..", "javax.sql..", "jakarta..", "org.apache.ibatis..");

    @ArchTest
    static final ArchRule CORE_HAS_NO_CLOCK_AND_NO_THREAD_OF_ITS_OWN = noClasses()
            .that()
            .resideInAPackage("underbaton.core..")
            .should()
            .callMethod(System.class, "currentTimeMillis")
            .orShould()
            .callMethod(System.class, "nanoTime")
            .orShould()
            .callConstructor(Thread.class, Runnable.class);

    /** A part of the engine is read without those that come behind it, and without the step that puts them together. */
    @ArchTest
    static final ArchRule PARTS_OF_THE_ENGINE_KNOW_EACH_OTHER_ONE_WAY =
            slices().matching("underbaton.core.engine.(*)").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule PARTS_DO_NOT_KNOW_THE_STEP = noClasses()
            .that()
            .resideInAPackage("underbaton.core.engine.*")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("underbaton.core.engine");

    @ArchTest
    static final ArchRule PARTS_EXTEND_NOTHING = classes()
            .that()
            .resideInAPackage("underbaton.core.engine..")
            .and()
            .areNotInterfaces()
            .and()
            .areNotEnums()
            .and()
            .areNotRecords()
            .and()
            .areTopLevelClasses()
            .should()
            .haveModifier(JavaModifier.FINAL)
            .andShould()
            .beAssignableTo(describe("nothing but Object", c -> c.getRawSuperclass()
                    .filter(s -> s.isEquivalentTo(Object.class))
                    .isPresent()));

    @ArchTest
    static final ArchTests HOUSE = ArchTests.in(HouseDrawing.class);
}
