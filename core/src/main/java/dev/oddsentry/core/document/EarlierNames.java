package dev.oddsentry.core.document;

import java.util.Map;
import java.util.Optional;

/** Names that fields and values of documents had before, so that a reader of the refusal learns the present name. */
final class EarlierNames {
    private static final Map<String, String> FIELDS = Map.ofEntries(
            Map.entry("all quiet", "send_when_quiet"),
            Map.entry("also send", "also_send"),
            Map.entry("ask every", "every"),
            Map.entry("attach csv", "attach"),
            Map.entry("at once", "send_immediately"),
            Map.entry("besides", "extra_columns"),
            Map.entry("checking", "limits"),
            Map.entry("copied from", "copied_from"),
            Map.entry("fire when", "fire_when"),
            Map.entry("first check", "first_check"),
            Map.entry("forget after", "forget_after"),
            Map.entry("group by", "group_by"),
            Map.entry("groups from", "expected_groups"),
            Map.entry("guard", "confirm_after"),
            Map.entry("hold", "open_after"),
            Map.entry("mark", "byte_order_mark"),
            Map.entry("may leave", "allow_unsubscribe"),
            Map.entry("misses", "clear_after"),
            Map.entry("most an hour", "max_per_hour"),
            Map.entry("most cleared", "max_cleared"),
            Map.entry("most opened", "max_opened"),
            Map.entry("on holiday", "on_holidays"),
            Map.entry("private to", "private_to"),
            Map.entry("ready when", "ready_when"),
            Map.entry("remind every", "remind_every"),
            Map.entry("reply to", "reply_to"),
            Map.entry("retry after", "retry_after"),
            Map.entry("rows in mail", "rows_in_mail"),
            Map.entry("several", "multiple"),
            Map.entry("split address", "split_address"),
            Map.entry("split by", "split_by"),
            Map.entry("split from", "split_from"),
            Map.entry("split to", "split_to"),
            Map.entry("still open", "still_open"),
            Map.entry("time limit", "time_limit"),
            Map.entry("when blank", "when_empty"),
            Map.entry("worked", "extra_working_days"),
            Map.entry("working days", "working_days"));

    private static final Map<String, String> VALUES = Map.ofEntries(
            Map.entry("blank", "no_rows"),
            Map.entry("drop", "skip"),
            Map.entry("eased", "improved"),
            Map.entry("moved away", "moved"),
            Map.entry("news", "update"),
            Map.entry("next working day", "next_working_day"),
            Map.entry("passed by", "ages_out"),
            Map.entry("previous working day", "previous_working_day"),
            Map.entry("put right", "clears"),
            Map.entry("stays", "stays_open"),
            Map.entry("take as known", "treat_as_known"),
            Map.entry("tell", "notify"));

    private EarlierNames() {}

    static Optional<String> field(String name) {
        return Optional.ofNullable(FIELDS.get(name));
    }

    static Optional<String> value(String value) {
        return Optional.ofNullable(VALUES.get(value));
    }
}
