/**
 * How machines that are not as the book says are made right: pure functions of how they should be and how they were told to be.
 */
package underbaton.core.engine.catchup;
