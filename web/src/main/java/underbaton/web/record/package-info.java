/**
 * What is written down while a show runs: the traffic, the performance with its moments, what came in lately, the places of GO. It
 * takes at once from whatever thread and writes when the database lets; it gives no orders.
 */
package underbaton.web.record;
