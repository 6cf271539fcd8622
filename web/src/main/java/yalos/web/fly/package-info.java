/** The Fly stage: a simulated aircraft flies a sortie on the sheet, is told what to do, and is talked about afterwards. */
package yalos.web.fly;
