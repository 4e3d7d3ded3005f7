/** Small programs that use the library; each is run by a test. */
package dev.morphema.examples;
