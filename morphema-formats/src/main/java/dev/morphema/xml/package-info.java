/**
 * XML 1.0 with namespaces, read and written by StAX. Nothing outside of a document is ever fetched.
 */
@NullMarked
package dev.morphema.xml;

import org.jspecify.annotations.NullMarked;
