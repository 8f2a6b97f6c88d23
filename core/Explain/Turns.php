<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Words\Words;

/** What was changed about a person, a record type or a field, said in pairs: "the role: member → manager". */
final class Turns
{
    /** Of these it is enough that they changed. */
    private const WITHOUT_VALUES = ['calendar_id', 'fields', 'sign_off_limits'];

    /**
     * What differs, as an entry keeps it.
     *
     * @param  array<array-key, mixed>  $was
     * @param  array<array-key, mixed>  $is
     * @return list<array{what: string, was: mixed, is: mixed}>
     */
    public static function between(array $was, array $is): array
    {
        $turns = [];
        foreach (array_keys($was + $is) as $what) {
            if (($was[$what] ?? null) !== ($is[$what] ?? null)) {
                $turns[] = ['what' => (string) $what, 'was' => $was[$what] ?? null, 'is' => $is[$what] ?? null];
            }
        }

        return $turns;
    }

    public static function called(string $what): string
    {
        return match ($what) {
            'manager_id' => Words::say('the manager'),
            'deputy_id' => Words::say('the deputy'),
            'active' => Words::say('whether they are with the company'),
            'name' => Words::say('the name'),
            'email' => Words::say('the address'),
            'role' => Words::say('the role'),
            'team' => Words::say('the team'),
            'time_zone' => Words::say('the time zone'),
            'calendar_id' => Words::say('the working calendar'),
            'sign_off_limit' => Words::say('the limit for sign-offs'),
            'sign_off_limits' => Words::say('the limits for sign-offs of some record types'),
            'label' => Words::say('what it is called'),
            'plural' => Words::say('what several are called'),
            'columns' => Words::say('what lists show'),
            'fields' => Words::say('the order of the fields'),
            'required' => Words::say('whether no record is without it'),
            'help' => Words::say('what is said about it'),
            'section' => Words::say('its heading'),
            'default' => Words::say('what it begins with'),
            'unique' => Words::say('whether no two records have the same'),
            'required_at' => Words::say('the stages that ask for it'),
            'on_delete' => Words::say('what becomes of it when the other one is deleted'),
            'choices' => Words::say('its choices'),
            'min' => Words::say('the least'),
            'max' => Words::say('the most'),
            'formula' => Words::say('its formula'),
            default => $what,
        };
    }

    /** @param  list<Kept>  $turns  people in words already */
    public static function said(array $turns): string
    {
        return implode("\n", array_map(static function (Kept $turn): string {
            $what = $turn->text('what');

            return ucfirst(self::called($what)).(in_array($what, self::WITHOUT_VALUES, true) ? Words::say(' changed')
                : ': '.self::value($turn->data['was'] ?? null).' → '.self::value($turn->data['is'] ?? null));
        }, $turns));
    }

    private static function value(mixed $value): string
    {
        return match (true) {
            $value === null, $value === '', $value === [] => Words::say('nothing'),
            is_bool($value) => $value ? Words::say('yes') : Words::say('no'),
            // Choices by what they are called; whatever else is a list by its members.
            is_array($value) => implode(', ', array_map(
                static fn (mixed $one): string => is_array($one) ? self::value($one['label'] ?? null).(($one['retired'] ?? false) === true
                    ? Words::say(' (retired)') : '') : self::value($one),
                array_values($value),
            )),
            default => is_scalar($value) ? (string) $value : '',
        };
    }
}
