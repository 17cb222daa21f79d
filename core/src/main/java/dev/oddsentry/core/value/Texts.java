package dev.oddsentry.core.value;

/** Order of texts by Unicode code point, which UTF-16 order is not beyond the basic plane. */
public final class Texts {
    private Texts() {}

    public static int compare(String a, String b) {
        int shorter = Math.min(a.length(), b.length());
        for (int i = 0; i < shorter; i++) {
            char left = a.charAt(i);
            char right = b.charAt(i);
            if (left != right) {
                boolean oneIsSurrogate = Character.isSurrogate(left) != Character.isSurrogate(right);
                if (oneIsSurrogate) return Character.isSurrogate(left) ? 1 : -1;
                return Character.compare(left, right);
            }
        }
        return Integer.compare(a.length(), b.length());
    }
}
