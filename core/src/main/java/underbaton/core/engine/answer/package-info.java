/**
 * What machines say of themselves: that they did what they were told, that they did something else, or that a hand has moved them. No
 * message is sent from here. The calls ask for it when they are made, the ears when something comes in.
 */
package underbaton.core.engine.answer;
