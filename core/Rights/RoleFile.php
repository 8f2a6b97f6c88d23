<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/**
 * A role as a document: {"label", "duties": [], "reaches": {type: {act: reach}}, "fields": {type: {field: access}}}.
 *
 * @phpstan-type Problem array{at: string, code: string, message: string}
 */
final class RoleFile
{
    /** @var list<Problem> */
    private array $problems = [];

    private function __construct(private readonly Schema $schema)
    {
    }

    /**
     * @param  array<array-key, mixed>  $file
     * @return array{Role, list<Problem>} what could be read, and what is wrong with the rest
     */
    public static function read(string $name, array $file, Schema $schema): array
    {
        $reading = new self($schema);
        foreach (array_diff(array_keys($file), ['label', 'duties', 'reaches', 'fields']) as $unknown) {
            $reading->problem("/{$unknown}", 'unknown_member', Words::say('A role has no ‘{unknown}’.', unknown: $unknown));
        }
        $label = is_string($file['label'] ?? null) ? trim($file['label']) : '';
        if ($label === '' || mb_strlen($label) > 60) {
            $reading->problem('/label', 'invalid_value', Words::say('Give the role a name of at most 60 letters.'));
        }
        [$duties, $reaches] = [$reading->duties($file['duties'] ?? []), $reading->reaches($file['reaches'] ?? [])];
        $fields = $reading->fields($file['fields'] ?? [], new Role($name, $label, $duties, $reaches));
        $role = new Role($name, $label, $duties, $reaches, $fields);
        $reading->judge($role);

        return [$role, $reading->problems];
    }

    /**
     * A role as it was kept, once read soundly: what has gone since, such as a record type, says nothing any more.
     *
     * @param  array<array-key, mixed>  $file
     */
    public static function kept(string $name, array $file): Role
    {
        if ($name === Role::ADMINISTRATOR) {
            return Role::administrator(is_string($file['label'] ?? null) ? $file['label'] : Words::say('Administrator'));
        }
        [$reaches, $fields] = [[], []];
        foreach ((array) ($file['reaches'] ?? []) as $type => $of) {
            $reaches[(string) $type] = array_filter(array_map(self::reach(...), (array) $of));
        }
        foreach ((array) ($file['fields'] ?? []) as $type => $of) {
            $fields[(string) $type] = array_map(self::access(...), (array) $of);
        }
        $duty = static fn (mixed $one): ?Duty => is_string($one) ? Duty::tryFrom($one) : null;

        return new Role(
            $name,
            is_string($file['label'] ?? null) ? $file['label'] : $name,
            array_values(array_filter(array_map($duty, (array) ($file['duties'] ?? [])))),
            $reaches,
            $fields,
        );
    }

    private static function reach(mixed $given): ?Reach
    {
        return is_string($given) ? Reach::tryFrom($given) : null;
    }

    private static function access(mixed $given): FieldAccess
    {
        // What cannot be understood any more is kept from everybody rather than shown to all.
        return (is_string($given) ? FieldAccess::tryFrom($given) : null) ?? FieldAccess::Hidden;
    }

    /**
     * @return array{label: string, duties: list<string>, reaches: array<string, array<array-key, string>>,
     *     fields: array<string, array<array-key, string>>}
     */
    public static function write(Role $role): array
    {
        $reaches = [];
        foreach ($role->reaches as $type => $of) {
            $reaches[$type] = array_map(static fn (Reach $reach): string => $reach->value, $of);
        }
        $fields = [];
        foreach ($role->fields as $type => $of) {
            $fields[$type] = array_map(static fn (FieldAccess $access): string => $access->value, $of);
        }

        return ['label' => $role->label, 'duties' => array_column($role->duties, 'value'), 'reaches' => $reaches, 'fields' => $fields];
    }

    /** @return list<Duty> */
    private function duties(mixed $given): array
    {
        $duties = [];
        foreach ($this->members($given, '/duties') as $place => $one) {
            $duty = is_string($one) ? Duty::tryFrom($one) : null;
            if ($duty === null) {
                $this->problem("/duties/{$place}", 'unknown_value', Words::say('There is no such duty.'));
            } elseif (! in_array($duty, $duties, true)) {
                $duties[] = $duty;
            }
        }

        return $duties;
    }

    /** @return array<string, array<string, Reach>> */
    private function reaches(mixed $given): array
    {
        $reaches = [];
        foreach ($this->members($given, '/reaches') as $type => $of) {
            $type = (string) $type;
            if ($type !== Role::EVERY_OTHER && $this->schema->type($type) === null) {
                $this->problem("/reaches/{$type}", 'unknown_type', Words::say('There is no record type ‘{type}’.', type: $type));

                continue;
            }
            $reaches[$type] = [];
            foreach ($this->members($of, "/reaches/{$type}") as $act => $reach) {
                $isAct = Act::tryFrom((string) $act) !== null;
                $read = is_string($reach) ? Reach::tryFrom($reach) : null;
                if (! $isAct || $read === null) {
                    $message = $isAct ? Words::say('Say whose: none, own, team, subtree or all.')
                        : Words::say('Nothing is called ‘{act}’ that could be done with records.', act: $act);
                    $this->problem("/reaches/{$type}/{$act}", 'unknown_value', $message);
                } elseif ($read !== Reach::None) {
                    $reaches[$type][(string) $act] = $read;
                }
            }
        }

        return $reaches;
    }

    /** @return array<string, array<string, FieldAccess>> */
    private function fields(mixed $given, Role $role): array
    {
        $fields = [];
        foreach ($this->members($given, '/fields') as $typeName => $of) {
            $type = $this->schema->type((string) $typeName);
            if ($type === null) {
                $this->problem("/fields/{$typeName}", 'unknown_type', Words::say(
                    'There is no record type ‘{typeName}’.',
                    typeName: $typeName,
                ));

                continue;
            }
            foreach ($this->members($of, "/fields/{$typeName}") as $name => $access) {
                $field = $type->field((string) $name);
                $read = is_string($access) ? FieldAccess::tryFrom($access) : null;
                $at = "/fields/{$typeName}/{$name}";
                if ($field === null || $read === null) {
                    $this->problem($at, 'unknown_value', $field === null ? Words::say(
                        '{type} has no field ‘{name}’.',
                        type: $type->label,
                        name: $name,
                    )
                        : Words::say('Say full, read_only or hidden.'));
                } elseif ($read === FieldAccess::Hidden && in_array($field->name, [$type->title, $type->owner, 'created_by'], true)) {
                    $this->problem($at, 'not_possible', Words::say(
                        'By {field} a {record} is known, so it cannot be hidden.',
                        field: $field->label,
                        record: Words::within($type->label),
                    ));
                } elseif ($read !== FieldAccess::Full && $field->required && $role->reach(Act::Create, $type->name) !== Reach::None) {
                    $this->problem($at, 'not_possible', Words::say(
                        'Whoever makes new {type} has to fill in {field}.',
                        type: $type->plural,
                        field: $field->label,
                    ));
                } elseif ($read !== FieldAccess::Full) {
                    $fields[$type->name][$field->name] = $read;
                }
            }
        }

        return $fields;
    }

    /** What is sound by itself, and does not go together. */
    private function judge(Role $role): void
    {
        foreach ($role->reaches as $type => $of) {
            $read = $of[Act::Read->value] ?? Reach::None;
            foreach ($of as $act => $reach) {
                if (! $read->holds($reach)) {
                    $this->problem(
                        "/reaches/{$type}/{$act}",
                        'beyond_sight',
                        Words::say(
                            'Nobody acts on what they do not see: “{read}” is less than “{reach}”.',
                            read: $read->label(),
                            reach: $reach->label(),
                        ),
                    );
                }
            }
        }
        if ($role->readsEverything($this->schema) && $role->reach(Act::Read, Role::EVERY_OTHER) === Reach::All) {
            return;
        }
        foreach ($role->duties as $place => $duty) {
            if ($duty->needsToReadEverything()) {
                $this->problem("/duties/{$place}", 'needs_all',
                    Words::say(
                        '“{duty}”: whoever does this can come to read any record and field. Let the role see everything, or '
                            .'leave this out.',
                        duty: $duty->label(),
                    ));
            }
        }
    }

    /** @return array<array-key, mixed> */
    private function members(mixed $given, string $at): array
    {
        if (! is_array($given)) {
            $this->problem($at, 'invalid_value', Words::say('This has to be a list.'));

            return [];
        }

        return $given;
    }

    private function problem(string $at, string $code, string $message): void
    {
        $this->problems[] = ['at' => $at, 'code' => $code, 'message' => $message];
    }
}
