package dev.oddsentry.service.api.overview;

import dev.oddsentry.service.overview.TableViews;
import dev.oddsentry.service.overview.TableViews.TableView;
import dev.oddsentry.service.people.Person;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/table-views", produces = "application/json")
class TableViewController {
    private static final int MOST_COLUMNS = 2_000;
    private static final int LONGEST_NAME = 200;

    private final TableViews views;

    TableViewController(TableViews views) {
        this.views = views;
    }

    record TableViewBody(
            @NotNull @Size(max = MOST_COLUMNS) List<@Size(max = LONGEST_NAME) String> hidden,

            @NotNull @Size(max = MOST_COLUMNS)
            Map<@Size(max = LONGEST_NAME) String, @Min(40) @Max(1200) Integer> widths) {}

    @GetMapping
    List<TableView> listTableViews(@AuthenticationPrincipal Person of) {
        return views.of(of);
    }

    @PutMapping("/{table}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void saveTableView(
            @AuthenticationPrincipal Person of,
            @PathVariable @Size(max = 120) String table,
            @Valid @RequestBody TableViewBody body) {
        views.save(of, new TableView(table, body.hidden(), body.widths()));
    }

    @DeleteMapping("/{table}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeTableView(@AuthenticationPrincipal Person of, @PathVariable String table) {
        views.remove(of, table);
    }
}
