package dev.oddsentry.service.mail;

import java.net.IDN;

/** Domains with letters beyond ASCII travel in their ASCII form (RFC 5891), which each mail server knows. */
final class MailDomains {
    private MailDomains() {}

    /** @param address whose domain was checked when it was saved */
    static String inAscii(String address) {
        int at = address.lastIndexOf('@');
        return address.substring(0, at + 1) + IDN.toASCII(address.substring(at + 1), IDN.ALLOW_UNASSIGNED);
    }
}
