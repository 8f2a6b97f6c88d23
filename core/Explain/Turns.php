<?php

declare(strict_types=1);

namespace VividLedger\Explain;

/** What was changed about a person, a record type or a field, said in pairs: "the role: member → manager". */
final class Turns
{
    private const CALLED = [
        'manager_id' => 'the manager', 'deputy_id' => 'the deputy', 'active' => 'whether they are with the company', 'name' => 'the name',
        'email' => 'the address', 'role' => 'the role', 'team' => 'the team', 'time_zone' => 'the time zone',
        'calendar_id' => 'the working calendar', 'sign_off_limit' => 'the limit for sign-offs',
        'sign_off_limits' => 'the limits for sign-offs of some record types', 'label' => 'what it is called',
        'plural' => 'what several are called', 'columns' => 'what lists show', 'fields' => 'the order of the fields',
        'required' => 'whether no record is without it', 'help' => 'what is said about it', 'section' => 'its heading',
        'default' => 'what it begins with', 'unique' => 'whether no two records have the same',
        'required_at' => 'the stages that ask for it',
        'on_delete' => 'what becomes of it when the other one is deleted', 'choices' => 'its choices', 'min' => 'the least',
        'max' => 'the most', 'formula' => 'its formula',
    ];

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
        return self::CALLED[$what] ?? $what;
    }

    /** @param  list<Kept>  $turns  people in words already */
    public static function said(array $turns): string
    {
        return implode("\n", array_map(static function (Kept $turn): string {
            $what = $turn->text('what');

            return ucfirst(self::called($what)).(in_array($what, self::WITHOUT_VALUES, true) ? ' changed'
                : ': '.self::value($turn->data['was'] ?? null).' → '.self::value($turn->data['is'] ?? null));
        }, $turns));
    }

    private static function value(mixed $value): string
    {
        return match (true) {
            $value === null, $value === '', $value === [] => 'nothing',
            is_bool($value) => $value ? 'yes' : 'no',
            // Choices by what they are called; whatever else is a list by its members.
            is_array($value) => implode(', ', array_map(
                static fn (mixed $one): string => is_array($one) ? self::value($one['label'] ?? null).(($one['retired'] ?? false) === true
                    ? ' (retired)' : '') : self::value($one),
                array_values($value),
            )),
            default => is_scalar($value) ? (string) $value : '',
        };
    }
}
