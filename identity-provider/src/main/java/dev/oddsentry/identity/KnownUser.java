package dev.oddsentry.identity;

import java.util.Set;

/** @param login what they log in with, and their subject */
public record KnownUser(String login, String name, String address, String password, Set<String> groups) {
    /** It has a password. */
    @Override
    public String toString() {
        return login;
    }
}
