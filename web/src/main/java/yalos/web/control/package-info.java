/** The Control stage: points on the ground, what they make of the block, how they are walked to, measured and handed over. */
package yalos.web.control;
