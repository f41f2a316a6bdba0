/**
 * What all floors above stand on: settings, alarms, refusals told, files that come and go, what is typed. It knows no show and no
 * page; who has something to tell is asked through {@link underbaton.web.kernel.Alarm}.
 */
package underbaton.web.kernel;
