/** The page one comes to: what is flown next and what it still lacks, what to charge, what was flown last. */
package yalos.web.home;
