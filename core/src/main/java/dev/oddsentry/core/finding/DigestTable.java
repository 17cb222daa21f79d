package dev.oddsentry.core.finding;

/** Numbers by digest, in about thirty bytes each. */
public final class DigestTable {
    /** Words of one place: the digest and the number, one more than it is, so that nothing is a free place. */
    private static final int WORDS = 3;

    private static final double FULL = 0.8;

    private final long[] words;
    private final int places;
    private final int most;
    private int taken;

    /** @param most how many it will hold */
    public DigestTable(int most) {
        this.most = most;
        places = (int) Math.min(Integer.MAX_VALUE / WORDS - 1, (long) (most / FULL) + 1);
        words = new long[places * WORDS];
    }

    /**
     * @param number not below 0
     * @throws IllegalStateException if it is full
     */
    public void put(Digest digest, long number) {
        int at = placeOf(digest);
        if (words[at + 2] == 0 && ++taken > most) throw new IllegalStateException("more than " + most);
        words[at] = digest.high();
        words[at + 1] = digest.low();
        words[at + 2] = number + 1;
    }

    /** @return -1 if there is none */
    public long get(Digest digest) {
        return words[placeOf(digest) + 2] - 1;
    }

    public boolean has(Digest digest) {
        return get(digest) >= 0;
    }

    private int placeOf(Digest digest) {
        // The bits of a digest are spread evenly already.
        int place = (int) Math.unsignedMultiplyHigh(digest.low(), places);
        while (true) {
            int at = place * WORDS;
            if (words[at + 2] == 0 || (words[at] == digest.high() && words[at + 1] == digest.low())) return at;
            place = place + 1 == places ? 0 : place + 1;
        }
    }
}
