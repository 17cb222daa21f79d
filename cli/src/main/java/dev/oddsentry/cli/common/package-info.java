/** What commands share: options, requests, paging and output. */
@NullMarked
package dev.oddsentry.cli.common;

import org.jspecify.annotations.NullMarked;
