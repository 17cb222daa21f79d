package dev.oddsentry.service.people;

import java.io.Serializable;
import java.util.UUID;

/** A person who is logged in. Kept in sessions, so it holds no secret. */
public record Person(UUID id, String login, String name, String email, Role role) implements Serializable {}
