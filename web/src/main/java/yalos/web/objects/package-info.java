/** Objects and what is flown round them: their page, their faces unrolled, a look at all of it from anywhere. */
package yalos.web.objects;
