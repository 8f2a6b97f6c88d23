<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Message\Channel;
use VividLedger\People\NamedPerson;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Ladder\RungAct;
use VividLedger\Rule\Target\Targets;
use VividLedger\Rule\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Scope;

/** The sentences of a rule: what starts it, how often, when lines come, and what they do. A new kind is a pattern here. */
final class Sentences
{
    public static function trigger(): ChoiceSlot
    {
        return self::once('trigger', static function (): array {
            $field = Fields::own();
            $hand = ['?', ', or by hand', ['byHand', self::flag()]];
            $on = static function (array $constants, array $parts) use ($hand): Pattern {
                /** @var array<string, mixed> $constants */
                return new Pattern($constants, [...array_values($parts), $hand]);
            };
            $day = ['?', ', on that day only', ['onDayOnly', self::flag()]];
            $changed = [
                ' in ', ['fields', Fields::several()], ['?', ' from ', ['from', Values::ofField('fields')]],
                ['?', ' to ', ['to', Values::ofField('fields')]],
            ];
            $yearly = ['?', ', every year', ['yearly', self::flag()]];
            $mention = ['?', ' that mentions ', ['about', Simple::quoted()]];
            $quiet = static fn (string $of, string $said): Pattern => $on(
                ['kind' => 'quiet', 'of' => $of],
                ["once it {$said} for ", ['*', Amounts::due()]],
            );
            $related = static fn (string $happening, string $said): Pattern => $on(
                ['kind' => 'related', 'happening' => $happening],
                ['has its ', ['related', self::relation()], " {$said}", ['?', ', where ', ['where', self::ofRelated(new Conditions)]]],
            );

            return [
                $on(['kind' => 'created'], ['is created']),
                $on(['kind' => 'created_or_changed'], ['is created or changed']),
                $on(['kind' => 'changed'], ['is changed', ...$changed]),
                $on(['kind' => 'changed', 'fields' => []], ['is changed in any field']),
                $on(['kind' => 'changed'], ['is changed']),
                $on(['kind' => 'deleted'], ['is deleted']),
                ...array_map(
                    static fn (EventKind $event): Pattern => $on(['kind' => $event->value], [$event->label(), $mention]),
                    [EventKind::Comment, EventKind::Reply, EventKind::File, EventKind::TaskDone],
                ),
                $on(['kind' => 'by_hand'], [EventKind::ByHand->label()]),
                $on(
                    ['kind' => 'date'],
                    ['comes to the day of ', ['*', Amounts::none()], ['field', $field], ' ', ['*', Amounts::rest()], $yearly, $day],
                ),
                $on(
                    ['kind' => 'date'],
                    ['comes to ', ['*', Amounts::at(-1)], ' before ', ['field', $field], ' ', ['*', Amounts::rest()], $yearly, $day],
                ),
                $on(
                    ['kind' => 'date'],
                    ['comes to ', ['*', Amounts::at(1)], ' after ', ['field', $field], ' ', ['*', Amounts::rest()], $yearly, $day],
                ),
                $quiet('change', 'has not been changed'), $quiet('activity', 'has seen no activity'), $quiet('reply', 'has had no reply'),
                $on(
                    ['kind' => 'quiet', 'of' => 'value'],
                    ['once it has kept ', ['field', $field], ' at ', ['value', Values::ofField('field')], ' for ', ['*', Amounts::due()]],
                ),
                $on(['kind' => 'timetable'], ['is looked at ', ['rrule', RoundSlot::rule()], ' at ', [
                    'time', self::code('\d{2}:\d{2}', 'a time, such as 08:00'),
                ], ' from ', [
                    'from', self::code('\d{4}-\d{2}-\d{2}', 'a day, such as 2026-12-01'),
                ],
                    ['?', ', on working days', ['workingDays', self::flag()]],
                    ['?', ', together for each, by ', ['per', PersonSlots::person()],
                        ['?', ', by their own clock', ['clock', self::word('person')]]]]),
                $related('created', 'created'), $related('deleted', 'deleted'), $related('created_or_changed', 'created or changed'),
                $on(
                    ['kind' => 'related', 'happening' => 'changed'],
                    [
                        'has its ', ['related', self::relation()], ' changed',
                        ['?', ' in ', ['fields', self::ofRelated(Fields::several())]],
                        ['?', ', where ', ['where', self::ofRelated(new Conditions)]],
                    ],
                ),
            ];
        });
    }

    public static function guard(): ChoiceSlot
    {
        return self::once('guard', static function (): array {
            $again = ['?', ', ready again when ', ['again', new Conditions]];

            return [
                new Pattern(['kind' => 'every_time'], ['every time']),
                new Pattern(['kind' => 'becomes_true'], ['when the conditions become true']),
                new Pattern(['kind' => 'once_per_record'], ['once per ', ['', self::type()], $again]),
                new Pattern(
                    ['kind' => 'once_per_value'],
                    ['once per ', ['', self::type()], ' for each value of ', ['field', Fields::own()], $again],
                ),
                new Pattern(['kind' => 'once_in_period'], ['at most once in ', ['period', Amounts::length()], $again]),
                new Pattern(['kind' => 'so_many_times'], ['at most ', ['times', Simple::whole()], ' times in all', $again]),
            ];
        });
    }

    public static function timing(): ChoiceSlot
    {
        return self::once('timing', static function (): array {
            $field = Fields::own();
            $line = ['line', Simple::quoted()];
            $rest = [' ', ['*', Amounts::rest()]];
            $waits = [
                ...$rest, ['?', ', not if that takes ', ['timeOut', Amounts::length()]],
                [
                    '?', ', ',
                    ['then', Simple::labelled(static fn (): array => ['and then anyway' => 'anyway', 'and then not' => 'leave_out'])],
                ],
            ];

            return [
                new Pattern(['kind' => 'after'], ['after ', ['*', Amounts::due()]]),
                new Pattern(['kind' => 'after'], ['the same day ', ['*', Amounts::none()], ['*', Amounts::rest()]]),
                new Pattern(['kind' => 'date'], ['on ', ['*', Amounts::none()], ['field', $field], ...$rest]),
                new Pattern(['kind' => 'date'], [['*', Amounts::at(-1)], ' before ', ['field', $field], ...$rest]),
                new Pattern(['kind' => 'date'], [['*', Amounts::at(1)], ' after ', ['field', $field], ...$rest]),
                new Pattern(['kind' => 'done'], ['once ', ['*', Amounts::none()], $line, ' is done', ...$waits]),
                new Pattern(['kind' => 'done'], [['*', Amounts::at(1)], ' after ', $line, ' is done', ...$waits]),
                new Pattern(['kind' => 'late'], ['when ', ['*', Amounts::none()], $line, ' falls due undone', ...$rest]),
                new Pattern(['kind' => 'late'], [['*', Amounts::at(-1)], ' before ', $line, ' falls due', ...$rest]),
                new Pattern(['kind' => 'late'], [['*', Amounts::at(1)], ' after ', $line, ' fell due undone', ...$rest]),
                new Pattern(['kind' => 'every'], ['every ', ['*', Amounts::due()], ', at most ', ['times', Simple::whole()], ' times']),
            ];
        });
    }

    public static function line(): ChoiceSlot
    {
        return self::once('line', static function (): array {
            $on = ['?', 'on ', ['on', self::target()], ': '];
            $recipients = Simple::many(PersonSlots::recipient(), 'and');
            $message = ['Send ', ['to', $recipients], ' ', ['channel', self::channel()]];
            $further = [['?', ', with a copy to ', ['cc', $recipients]], ['?', ', answers to ', ['replyTo', $recipients]]];

            return [
                new Pattern(
                    ['kind' => 'set_fields'],
                    ['Set ', $on, ['set', self::assignments('on')], ['?', ', of those where ', ['where', self::ofTarget()]]],
                ),
                new Pattern(['kind' => 'give_task'], ['Give ', ...self::task()]),
                new Pattern(['kind' => 'give_tasks'], ['Give ', ['tasks', self::tasks()]]),
                new Pattern(['kind' => 'remind'], ['Remind ', ['to', PersonSlots::person()], ['?', ' ', ['text', Simple::quoted()]]]),
                new Pattern(['kind' => 'send_message'], [...$message, ' with the letter ', ['letter', Simple::quoted()], ...$further]),
                new Pattern(
                    ['kind' => 'send_message'],
                    [
                        ...$message, ['?', ' about ', ['subject', Simple::quoted()]], ['?', ' saying ', ['body', Simple::quoted()]],
                        ...$further,
                    ],
                ),
                new Pattern(['kind' => 'send_list'],
                    ['Send them ', ['channel', self::channel()], ' about ', ['subject', Simple::quoted()], ' with the columns ', [
                        'columns', Simple::many(Fields::path(), 'and'),
                    ],
                        ['?', ', by ', ['by', Fields::own()], ' up to ', ['*', Amounts::ahead()], ' ahead'],
                        ['?', ', and ', ['and', self::sections()]], ['?', ', and their open tasks', ['tasks', self::flag()]],
                        ['?', ', saying ', ['body', Simple::quoted()]]]),
                new Pattern(['kind' => 'escalate'], ['Go up the ladder ', ['ladder', Simple::quoted()]]),
                new Pattern(['kind' => 'escalate'], ['Go up these rungs: ', ['rungs', Simple::series(self::rung(), 1)]]),
                new Pattern(
                    ['kind' => 'create_record'],
                    [
                        'Make a new ', ['type', self::types()], ['?', ' with ', ['set', self::assignments('type')]],
                        ['?', ', called ', ['as', Simple::quoted()]],
                    ],
                ),
                new Pattern(['kind' => 'assign'], ['Assign ', ['', self::type()], ' to ', ['to', PersonSlots::person()]]),
                new Pattern(['kind' => 'comment'], ['Comment ', ['?', 'on ', ['on', self::target()], ' '], ['text', Simple::quoted()]]),
                new Pattern(
                    ['kind' => 'follow', 'stop' => true],
                    ['Let ', ['who', PersonSlots::person()], ' no longer follow ', ['', self::type()]],
                ),
                new Pattern(['kind' => 'follow'], ['Let ', ['who', PersonSlots::person()], ' follow ', ['', self::type()]]),
                new Pattern(
                    ['kind' => 'refuse'],
                    ['Refuse the save with ', ['message', Simple::quoted()], ['?', ' at ', ['field', Fields::own()]]],
                ),
            ];
        });
    }

    /** Records of other types on a list: "the Agreements of the owner with the columns Title, by End". */
    private static function sections(): Slot
    {
        return Simple::series(new ChoiceSlot(static fn (): array => [new Pattern([], ['the records ', ['on', self::types()], ' of ', [
            'per', self::ofType(PersonSlots::person()),
        ], ' with the columns ', [
            'columns', self::ofType(Simple::many(Fields::path(), 'and')),
        ],
            ['?', ', by ', ['by', self::ofType(Fields::own())]], ['?', ', where ', ['onlyIf', self::ofType(new Conditions)]]])]), 1);
    }

    private static function ofType(Slot $slot): Simple
    {
        $about = static fn (Scope $scope, array $around): Scope => $scope->about($scope->schema->type(
            is_string($around['on'] ?? null) ? $around['on'] : '',
        ));

        return new Simple(
            static fn (mixed $json, Scope $scope, array $around): ?string => $slot->print($json, $about($scope, $around), []),
            static fn (Cursor $cursor, Scope $scope, array $around): ?array => $slot->parse($cursor, $about($scope, $around), []),
        );
    }

    /** @return list<mixed> */
    private static function task(): array
    {
        $priority = Simple::labelled(
            static fn (): array => ['low-priority' => 'low', 'normal-priority' => 'normal', 'high-priority' => 'high'],
        );

        return [
            ['to', PersonSlots::person()], ' a ', ['?', ['priority', $priority], ' '], 'task', ['?', ' ', ['title', Simple::quoted()]],
            ['?', ' also on ', ['contact', Fields::path()]], ['?', ' due ', ['due', self::taskDue()]],
            ['?', ' with the notes ', ['notes', Simple::quoted()]],
        ];
    }

    private static function tasks(): Slot
    {
        return Simple::series(new ChoiceSlot(static fn (): array => [new Pattern([], self::task())]), 2);
    }

    /** "after 1 working day find the owner’s manager: tell them and raise the priority" */
    private static function rung(): ChoiceSlot
    {
        $acts = Simple::labelled(
            static fn (): array => [
                'tell them' => RungAct::Tell->value, 'make them the owner' => RungAct::Reassign->value,
                'raise the priority' => RungAct::Raise->value,
            ],
        );

        return new ChoiceSlot(
            static fn (): array => [
                new Pattern(
                    [],
                    [
                        ['?', 'after ', ['after', Amounts::due()], ' '], 'find ', ['to', PersonSlots::person()], ': ',
                        ['do', Simple::many($acts, 'and')],
                    ],
                ),
            ],
        );
    }

    private static function taskDue(): ChoiceSlot
    {
        $from = ['from', Fields::path()];
        $rest = [' ', ['*', Amounts::rest()]];

        return self::once('due', static fn (): array => [
            new Pattern([], ['at once', ['*', Amounts::none()]]),
            new Pattern([], ['the same day ', ['*', Amounts::none()], ['*', Amounts::rest()]]),
            new Pattern([], [['*', Amounts::length()], ' later', ...$rest]),
            new Pattern([], ['on ', ['*', Amounts::none()], $from, ...$rest]),
            new Pattern([], [['*', Amounts::at(-1)], ' before ', $from, ...$rest]),
            new Pattern([], [['*', Amounts::at(1)], ' after ', $from, ...$rest]),
        ]);
    }

    /** What a field is set to. */
    private static function assigned(): ChoiceSlot
    {
        return self::once('assigned', static function (): array {
            $number = new Simple(
                static fn (mixed $json, Scope $scope): ?string => is_string($json) && preg_match('/^-?\d+(\.\d+)?$/', $json) === 1 ? $json
                    : (is_array($json) && array_keys($json) === ['path'] ? Fields::path()->print($json['path'], $scope, []) : null),
                static function (Cursor $cursor, Scope $scope): ?array {
                    $found = $cursor->pattern('-?\d+(?:\.\d+)?', 'a number');
                    $path = $found === null ? Fields::parsePath($cursor, $scope) : null;

                    return $found !== null ? [$found[0]] : ($path === null ? null : [['path' => $path[0]]]);
                },
            );
            $beyond = [
                '?', ', ',
                ['beyond', Simple::labelled(static fn (): array => ['and no further' => 'stop', 'or the save is refused' => 'refuse'])],
            ];
            $from = ['?', ['from', new Simple(
                static fn (mixed $json, Scope $scope): ?string => [
                    'now' => 'now', 'itself' => 'what it is',
                ][is_string($json) ? $json : ''] ?? Fields::path()->print($json, $scope, []),
                static fn (Cursor $cursor, Scope $scope): ?array => $cursor->label([
                    'now' => 'now', 'what it is' => 'itself',
                ]) ?? Fields::parsePath($cursor, $scope),
            )]];

            // A name by itself is read as the value of the field.
            $found = new Simple(
                static fn (mixed $json, Scope $scope): ?string => is_array($json)
                    && ($json['kind'] ?? null) === NamedPerson::kind() ? null : PersonSlots::person()->print($json, $scope, []),
                static fn (Cursor $cursor, Scope $scope): ?array => PersonSlots::person()->parse($cursor, $scope, []),
            );

            return [
                new Pattern(['kind' => Value\Cleared::kind()], ['empty']),
                new Pattern(['kind' => Value\FixedValue::kind()], [['value', Values::ofField('field')]]),
                new Pattern(['kind' => Value\Stamp::kind()], ['now']),
                new Pattern(['kind' => Value\Stamp::kind()], ['today']),
                ...array_map(
                    static fn (string $kind, string $word): Pattern => new Pattern(
                        ['kind' => $kind],
                        ["what it is {$word} ", ['amount', $number], $beyond],
                    ),
                    [Value\Added::kind(), Value\Subtracted::kind(), Value\Multiplied::kind()],
                    ['plus', 'minus', 'times'],
                ),
                ...array_map(
                    static fn (string $kind, string $word): Pattern => new Pattern(
                        ['kind' => $kind],
                        ["what it is {$word} ", ['member', Values::ofField('field')]],
                    ),
                    [Value\WithMember::kind(), Value\WithoutMember::kind()],
                    ['with', 'without'],
                ),
                new Pattern(['kind' => Value\Shifted::kind()], [['*', Amounts::at(-1)], ' before ', $from]),
                new Pattern(['kind' => Value\Shifted::kind()], [['*', Amounts::at(1)], ' after ', $from]),
                new Pattern(['kind' => Value\WrittenText::kind()], ['the text ', ['text', Simple::quoted()]]),
                new Pattern(['kind' => Value\AppendedLine::kind()], ['what it is, and below ', ['text', Simple::quoted()]]),
                new Pattern(['kind' => Value\Reckoned::kind()], ['the formula ', ['formula', Simple::quoted()]]),
                new Pattern(['kind' => Value\CopiedValue::kind()], [['from', Fields::bare()]]),
                new Pattern(['kind' => Value\FoundPerson::kind()], [['person', $found]]),
                new Pattern(['kind' => Value\FoundPerson::kind()], ['the person ', ['person', PersonSlots::person()]]),
                new Pattern(['kind' => Value\ThisOne::kind()], ['this ', ['', self::type()]]),
                new Pattern(['kind' => Value\MadeOne::kind()], ['the new record ', ['as', Simple::quoted()]]),
                new Pattern(['kind' => Value\CopiedValue::kind()], [['from', Fields::path()]]),
            ];
        });
    }

    /** "Review to Needed and Stage since to now" */
    private static function assignments(string $of): Slot
    {
        $about = static fn (Scope $scope, array $around): ?RecordType => $of === 'type' ? $scope->schema->type(
            is_string($around['type'] ?? null) ? $around['type'] : '',
        ) : self::typeOf($scope, $around['on'] ?? null);

        return new Simple(
            static function (mixed $json, Scope $scope, array $around) use ($about): ?string {
                $type = $about($scope, $around);
                $texts = [];
                if ($type === null) {
                    return null;
                }
                foreach (is_array($json) ? $json : [] as $item) {
                    $field = is_array($item) && is_string($item['field'] ?? null) ? $type->field($item['field']) : null;
                    if ($field === null || array_diff(array_keys($item), ['field', 'to']) !== []) {
                        return null;
                    }
                    $to = self::value($field)->print($item['to'] ?? null, $scope, []);
                    if ($to === null) {
                        return null;
                    }
                    $texts[] = (Fields::own()->print($field->name, $scope->about($type), []) ?? '')." to {$to}";
                }

                return $texts === [] ? null : implode(' and ', $texts);
            },
            static function (Cursor $cursor, Scope $scope, array $around) use ($about): ?array {
                $type = $about($scope, $around);
                $items = [];
                do {
                    $start = $cursor->at;
                    $name = $type === null ? null : Fields::own()->parse($cursor, $scope->about($type), []);
                    $field = $type?->field(is_string($name[0] ?? null) ? $name[0] : '');
                    $to = $field !== null && $cursor->words('to') ? self::value($field)->parse($cursor, $scope, []) : null;
                    if ($field === null || $to === null) {
                        $cursor->at = $start;

                        return null;
                    }
                    $items[] = ['field' => $field->name, 'to' => $to[0]];
                } while ($cursor->words('and'));

                return [$items];
            },
        );
    }

    /** What a certain field is set to; its own value is read as the field has it, all else as the record the rule is about. */
    private static function value(Field $field): Slot
    {
        $own = new ChoiceSlot(static fn (): array => array_merge([
            new Pattern(['kind' => Value\FixedValue::kind()], [['value', self::fixed($field)]]),
            ...array_map(
                static fn (string $kind, string $word): Pattern => new Pattern(
                    ['kind' => $kind],
                    ["what it is {$word} ", ['member', self::fixed($field)]],
                ),
                [Value\WithMember::kind(), Value\WithoutMember::kind()],
                ['with', 'without'],
            ),
        ]));
        $isDay = $field->type === FieldType::Date;

        return new Simple(
            static fn (mixed $json, Scope $scope): ?string => is_array($json) && ($json['kind']
                ?? null) === Value\Stamp::kind() && count($json) === 1 ? ($isDay ? 'today' : 'now') : ($own->print($json, $scope, [])
                ?? self::assigned()->print($json, $scope, [])),
            static function (Cursor $cursor, Scope $scope) use ($own): ?array {
                $start = $cursor->at;
                $one = $own->parse($cursor, $scope, []);
                $end = $cursor->at;
                $cursor->at = $start;
                $other = self::assigned()->parse($cursor, $scope, []);
                if ($one !== null && $end >= $cursor->at) {
                    $cursor->at = $end;

                    return $one;
                }

                return $other;
            },
        );
    }

    private static function fixed(Field $field): Simple
    {
        return new Simple(
            static fn (mixed $json, Scope $scope): ?string => Values::print($json, $field, $scope),
            static fn (Cursor $cursor, Scope $scope): ?array => Values::parse($cursor, $field, $scope),
        );
    }

    private static function target(): Simple
    {
        return new Simple(
            static function (mixed $json, Scope $scope): ?string {
                if (is_string($json) && str_starts_with($json, 'new:')) {
                    return 'the new record '.Cursor::quote(substr($json, 4));
                }
                $found = array_search($json, self::targets($scope), true);

                return $found === false ? null : (string) $found;
            },
            static function (Cursor $cursor, Scope $scope): ?array {
                if ($cursor->words('the new record')) {
                    $name = $cursor->quoted();

                    return $name === null ? null : ["new:{$name}"];
                }

                return $cursor->label(self::targets($scope));
            },
        );
    }

    /** @return array<string, string> */
    private static function targets(Scope $scope): array
    {
        $labels = [];
        foreach (Targets::offers($scope->context()) as $offer) {
            if (is_string($offer->value)) {
                $labels[$offer->label] ??= $offer->value;
            }
        }

        return $labels;
    }

    private static function typeOf(Scope $scope, mixed $on): ?RecordType
    {
        if ($on === null) {
            return $scope->type;
        }
        if (! is_string($on) || str_starts_with($on, 'new:')) {
            // Which record that is, an earlier line says; its fields are those of any type.
            return is_string($on) ? $scope->schema->type(preg_replace('/_\d+$/', '', substr($on, 4)) ?? '') : null;
        }
        $relation = Relation::named($scope->schema, $scope->type, $on);
        $target = $relation?->children === true ? $relation->type->name : $scope->schema->path($scope->type, $on)?->field->target;

        return $scope->schema->type($target ?? '');
    }

    /** Conditions on the records a line works on. */
    private static function ofTarget(): Simple
    {
        $conditions = new Conditions;

        return new Simple(
            static fn (mixed $json, Scope $scope, array $around): ?string => $conditions->print(
                $json,
                $scope->about(self::typeOf($scope, $around['on'] ?? null)),
                [],
            ),
            static fn (Cursor $cursor, Scope $scope, array $around): ?array => $conditions->parse(
                $cursor,
                $scope->about(self::typeOf($scope, $around['on'] ?? null)),
                [],
            ),
        );
    }

    private static function relation(): Simple
    {
        return Simple::labelled(static function (Scope $scope): array {
            $labels = [];
            foreach (Relation::of($scope->schema, $scope->type) as $relation) {
                $labels[$relation->one()] ??= $relation->name();
            }

            return $labels;
        });
    }

    /** What is said of the related record, in its own fields. */
    private static function ofRelated(Slot $slot): Simple
    {
        $about = static fn (Scope $scope, array $around): Scope => $scope->about(
            Relation::named($scope->schema, $scope->type, is_string($around['related'] ?? null) ? $around['related'] : '')?->type,
        );

        return new Simple(
            static fn (mixed $json, Scope $scope, array $around): ?string => $slot->print($json, $about($scope, $around), []),
            static fn (Cursor $cursor, Scope $scope, array $around): ?array => $slot->parse($cursor, $about($scope, $around), []),
        );
    }

    /** The record type at hand, in a sentence; it says nothing that the file would have to keep. */
    private static function type(): Simple
    {
        return new Simple(
            static fn (mixed $json, Scope $scope): string => $scope->type->inSentence(),
            static fn (Cursor $cursor, Scope $scope): ?array => $cursor->words($scope->type->inSentence()) || $cursor->words('it')
                || $cursor->words('record') ? [null] : null,
        );
    }

    public static function types(): Simple
    {
        return Simple::labelled(static function (Scope $scope): array {
            $labels = [];
            foreach ($scope->schema->types as $type) {
                $labels[$type->label] = $type->name;
            }

            return $labels;
        });
    }

    private static function channel(): Simple
    {
        return new Simple(
            static fn (mixed $json): ?string => ($channel = $json === null ? Channel::Email
                : Channel::tryFrom(is_string($json) ? $json : '')) === null ? null : $channel->one(),
            static function (Cursor $cursor): ?array {
                $labels = ['email' => Channel::Email->value, 'mail' => Channel::Email->value];
                foreach (Channel::cases() as $channel) {
                    $labels[$channel->label()] = $channel->value;
                }

                return $cursor->label($labels);
            },
        );
    }

    /** When a rule writes to nobody: the hours outside which it waits or drops, and the most that one address gets. */
    public static function never(): ChoiceSlot
    {
        return self::once('never', static function (): array {
            $clock = static fn (string $such): Simple => self::code('\d{2}:\d{2}', "a time, such as {$such}");
            $owner = new Simple(static fn (mixed $json): ?string => $json === 'owner' ? '' : null, static fn (): array => ['owner']);
            $dash = new Simple(
                static fn (): string => '–',
                static fn (Cursor $cursor): ?array => $cursor->pattern('[–-]|to\b', '–') === null ? null : [null],
            );
            $outside = new ChoiceSlot(
                static fn (): array => [
                    new Pattern(
                        [],
                        [
                            'outside ', ['from', $clock('08:00')], ['', $dash], ['to', $clock('18:00')],
                            ['?', ' on working days', ['workingDays', self::flag()]], ['?', ', by the owner’s clock', ['clock', $owner]],
                        ],
                    ),
                ],
            );
            $then = Simple::labelled(static fn (): array => ['what is over is dropped' => 'drop', 'what is over waits' => 'wait']);
            $cap = new ChoiceSlot(static fn (): array => [
                new Pattern(
                    [],
                    [
                        'more than ', ['messages', Simple::whole()], ' messages in ', ['*', Amounts::length()], ' to one address',
                        ['?', '; ', ['then', $then]],
                    ],
                ),
            ]);

            return [
                new Pattern([], [['outside', $outside], ' or ', ['moreThan', $cap]]),
                new Pattern([], [['outside', $outside]]),
                new Pattern([], [['moreThan', $cap]]),
            ];
        });
    }

    private static function flag(): Simple
    {
        return new Simple(static fn (mixed $json): ?string => $json === true ? '' : null, static fn (): array => [true]);
    }

    /** A word of the file that says nothing by itself: the piece it stands in says it. */
    private static function word(string $value): Simple
    {
        return new Simple(static fn (mixed $json): ?string => $json === $value ? '' : null, static fn (): array => [$value]);
    }

    private static function code(string $pattern, string $expected): Simple
    {
        return new Simple(
            static fn (mixed $json): ?string => is_string($json) && preg_match("/^{$pattern}$/", $json) === 1 ? $json : null,
            static fn (Cursor $cursor): ?array => ($found = $cursor->pattern($pattern, $expected)) === null ? null : [$found[0]],
        );
    }

    /** @param  \Closure(): list<Pattern>  $patterns */
    private static function once(string $name, \Closure $patterns): ChoiceSlot
    {
        /** @var array<string, ChoiceSlot> $made */
        static $made = [];

        return $made[$name] ??= new ChoiceSlot($patterns);
    }
}
