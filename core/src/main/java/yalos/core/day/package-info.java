/** The day on site: its light and weather by the hour, when to fly, what is done in which order, and the papers that go along. */
package yalos.core.day;
