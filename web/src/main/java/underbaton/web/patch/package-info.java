/** The page Patch: which inputs reach which outputs, set by set. */
package underbaton.web.patch;
