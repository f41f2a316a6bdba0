/**
 * Who may come in, and what he may: roles and what each may do, devices of the venue that were let in, how one is let in, the door of
 * its own through which they come, and the filters that hold all of that. Knows no page and no show. What is asked of a visitor from
 * elsewhere is asked of {@link underbaton.web.access.Table}, and nowhere else.
 */
package underbaton.web.access;
