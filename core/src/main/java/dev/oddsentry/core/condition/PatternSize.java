package dev.oddsentry.core.condition;

import java.util.ArrayDeque;

/**
 * Estimates the size of the program that a regular expression compiles to, without compiling it: repetitions of repetitions multiply, and a short text can ask
 * for more memory than there is. Never too low by more than a small factor; a text that is no regular expression gets some number.
 */
final class PatternSize {
    /** Instructions; matching takes time in proportion to them for each character of a text. */
    static final int MOST = 5_000;

    private static final int OF_CLASS = 4;

    private final String pattern;
    private int at;

    private PatternSize(String pattern) {
        this.pattern = pattern;
    }

    static boolean isTooLarge(String pattern) {
        return pattern.length() > MOST || new PatternSize(pattern).size() > MOST;
    }

    private static final class Group {
        private long sum;
        /** The last part, which a repetition that follows multiplies. */
        private long last;

        void add(long size) {
            sum = Math.min(Integer.MAX_VALUE, sum + last);
            last = size;
        }
    }

    private long size() {
        var open = new ArrayDeque<Group>();
        var group = new Group();
        while (at < pattern.length()) {
            char c = pattern.charAt(at++);
            switch (c) {
                case '(' -> {
                    open.push(group);
                    group = new Group();
                }
                case ')' -> {
                    group.add(0);
                    long size = group.sum + 2;
                    group = open.isEmpty() ? new Group() : open.pop();
                    group.add(size);
                }
                case '{' -> repeat(group);
                case '*', '+', '?' -> group.last++;
                case '[' -> {
                    skipClass();
                    group.add(OF_CLASS);
                }
                case '\\' -> {
                    skipEscape(group);
                }
                default -> group.add(1);
            }
        }
        long sum = 0;
        for (open.push(group); !open.isEmpty(); open.pop()) sum += open.peek().sum + open.peek().last;
        return sum;
    }

    /** {@code {n}}, {@code {n,}} or {@code {n,m}}; anything else in braces is itself. */
    private void repeat(Group group) {
        int close = pattern.indexOf('}', at);
        String bounds = close < 0 ? "" : pattern.substring(at, close);
        if (!bounds.matches("\\d{1,9}(,\\d{0,9})?")) {
            group.add(1);
            return;
        }
        at = close + 1;
        long most = 1;
        for (String bound : bounds.split(",")) most = Math.max(most, Long.parseLong(bound));
        group.last = Math.min(Integer.MAX_VALUE, (group.last + 1) * most);
    }

    private void skipClass() {
        if (at < pattern.length() && pattern.charAt(at) == '^') at++;
        // The first bracket of a class stands for itself.
        if (at < pattern.length() && pattern.charAt(at) == ']') at++;
        while (at < pattern.length() && pattern.charAt(at) != ']') at += pattern.charAt(at) == '\\' ? 2 : 1;
        at++;
    }

    private void skipEscape(Group group) {
        boolean quotes = at < pattern.length() && pattern.charAt(at) == 'Q';
        at++;
        if (!quotes) {
            group.add(OF_CLASS);
            return;
        }
        int end = pattern.indexOf("\\E", at);
        int last = end < 0 ? pattern.length() : end;
        for (int i = at; i < last; i++) group.add(1);
        at = end < 0 ? last : end + 2;
    }
}
