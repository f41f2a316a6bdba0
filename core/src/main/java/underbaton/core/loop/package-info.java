/** The threads of the application: each is a {@link underbaton.core.loop.Loop}, and {@link underbaton.core.loop.Loops} makes and watches them. */
package underbaton.core.loop;
