package dev.oddsentry.service.api.people;

import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/people", produces = "application/json")
class PeopleController {
    private final People people;

    PeopleController(People people) {
        this.people = people;
    }

    record NewPersonBody(
            @NotBlank @Pattern(regexp = "[a-z0-9._-]{1,60}", message = "lower-case letters, digits, dots and hyphens")
            String login,

            @NotBlank @Size(max = 200) String name,
            @NotBlank @Email @Size(max = 254) String email,
            @NotBlank @Size(max = 200) String password,
            @NotNull Role role) {}

    @GetMapping
    List<Person> listUsers() {
        return people.all();
    }

    @PostMapping
    @PreAuthorize("hasRole('OPERATOR')")
    @ResponseStatus(HttpStatus.CREATED)
    Person addUser(@AuthenticationPrincipal Person by, @Valid @RequestBody NewPersonBody body) {
        return people.add(
                by, new People.NewPerson(body.login(), body.name(), body.email(), body.password(), body.role()));
    }
}
