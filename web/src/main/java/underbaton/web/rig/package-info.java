/**
 * The page Rig: machines, their phrasebooks and their lists.
 */
package underbaton.web.rig;
