/** One block: opened, changed with every step kept, undone and redone; its plan computed once for each state. */
package yalos.web.block;
