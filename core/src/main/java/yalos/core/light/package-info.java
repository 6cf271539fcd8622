/** The sun: where it stands, when it is high enough, and how long shadows are. */
package yalos.core.light;
