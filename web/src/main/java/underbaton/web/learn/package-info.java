/**
 * Touching a machine to write down what it says.
 */
package underbaton.web.learn;
