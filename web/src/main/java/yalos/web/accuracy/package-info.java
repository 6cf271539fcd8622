/** The Accuracy stage: residuals of points on the ground, what the standards make of them, what their pattern suggests, and the report for the client. */
package yalos.web.accuracy;
