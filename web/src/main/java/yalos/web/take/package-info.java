/** The Take stage: photos brought in and matched, their pictures judged, the take proved as flown, what to fly again, what is missing before leaving. */
package yalos.web.take;
