package dev.morphema.value;

/** What comes next among the bytes of encoded values. */
enum ValueTag {
    NONE,
    ABSENT,
    NULL,
    TEXT,
    PLAIN_TEXT,
    ELEMENT_TEXT,
    NUMBER,
    LARGE_NUMBER,
    TRUE,
    FALSE,
    DATE,
    TIME,
    LOCAL_DATETIME,
    DATETIME,
    RECORD,
    LIST,
    MANY;

    private static final ValueTag[] ALL = values();

    static ValueTag of(int number) {
        return ALL[number];
    }
}
