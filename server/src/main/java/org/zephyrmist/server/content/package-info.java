/** Content kept once by fingerprint: bodies (forms of aspects), files in chunks, trees of items. */
package org.zephyrmist.server.content;
