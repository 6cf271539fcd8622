/** Who may come in: the addresses it answers to, what is refused before it is read, sign-in for those who come over the network. */
package yalos.web.door;
