/** A file system whose operations fail when a test wants it. */
package dev.morphema.testing.files;
