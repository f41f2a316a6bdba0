/** Time code as sound: Linear Time Code, as players and recorders take it on an audio line. */
package underbaton.core.ltc;
