<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\House\Directory;
use VividLedger\Message\Channel;
use VividLedger\People\PersonExpressions;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Recipient\Recipients;
use VividLedger\Rule\Target\Targets;
use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Rule\Value\CalendarDay;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Context;
use VividLedger\Shape\Offer;
use VividLedger\Slip\Question\AskField;
use VividLedger\Time\Unit;

/**
 * Rule files over the whole range of what a rule can say: every trigger, guard, timing, line, value and person, put together
 * at random from a seed. What comes out is sound; only whether it makes sense is nobody's concern.
 */
final class WholeRange
{
    private readonly Stories $stories;

    /** @var array<string, true> the kinds used so far, as "place: kind" */
    public array $used = [];

    /** @var array<string, string> record type by the name an earlier line of the rule gave */
    private array $made = [];

    /** @var list<string> keys of lines above that give tasks */
    private array $keys = [];

    /** @var array<string, int> keys of lines above that ask for a sign-off, and how many steps each has */
    private array $signOffs = [];

    /** @var list<string> keys of lines above that call another system */
    private array $calls = [];

    /** @var array<string, list<string>> answers of the slips that lines above send, by their keys */
    private array $slips = [];

    /**
     * @param  list<string>  $handles
     * @param  non-empty-array<string, non-empty-list<int>>  $ids  of records there are, by type
     */
    public function __construct(
        int $seed,
        private readonly Schema $schema,
        private readonly Directory $directory,
        private readonly \DateTimeZone $zone,
        array $handles,
        array $ids,
    ) {
        $this->stories = new Stories($seed, $schema, $handles, $ids);
    }

    /** @return array<string, mixed> */
    public function rule(string $name, string $about = 'ticket'): array
    {
        $type = $this->schema->types[$about];
        $this->made = [];
        $this->keys = [];
        $this->signOffs = [];
        $this->slips = [];
        $this->calls = [];
        $when = $this->trigger($type);
        $together = isset($when['per']);
        $lines = [];
        for ($count = $this->stories->random->getInt(1, 4); $count > 0; $count--) {
            $lines[] = $together ? $this->sendList($type) : $this->placed($type);
        }
        $file = ['name' => $name, 'on' => $about, 'when' => $when, 'fires' => $this->guard($type), 'lines' => $lines];
        if ($this->chance(2)) {
            $file['onlyIf'] = ['kind' => 'all', 'of' => [$this->stories->condition($type, 1)]];
        }
        $lasts = array_filter($lines, static fn (array $line): bool => isset($line['at']) || $line['kind'] === 'escalate') !== [];
        if ($lasts && $this->chance(2)) {
            $file['until'] = $this->stories->one([
                ['kind' => 'happened', 'event' => 'reply'], ['kind' => 'all', 'of' => [$this->stories->condition($type, 2)]],
                ['kind' => 'any', 'of' => [$this->stories->condition($type, 3), ['kind' => 'happened', 'event' => 'task_done']]],
            ]);
        }
        if ($this->chance(3)
            && ($lasts || array_filter($lines, static fn (array $line): bool => $line['kind'] === 'send_message') !== [])) {
            $outside = [
                'from' => '08:00', 'to' => $this->stories->one(['18:30', '24:00']),
            ] + $this->stories->one([[], ['workingDays' => true], ['clock' => 'owner']]);
            $most = ['messages' => 2, 'amount' => 1, 'unit' => 'week'] + $this->stories->one([[], ['then' => 'drop'], ['then' => 'wait']]);
            $file['never'] = $this->stories->one([
                ['outside' => $outside], ['moreThan' => $most], ['outside' => $outside, 'moreThan' => $most],
            ]);
        }

        return $together ? $file : ['lines' => $this->inCases($lines, $type)] + $file;
    }

    /**
     * The last line in a case, now and then. What is drawn for it is drawn apart, so that all else stays as it was.
     *
     * @param  non-empty-list<array<string, mixed>>  $lines
     * @return list<array<string, mixed>>
     */
    private function inCases(array $lines, RecordType $type): array
    {
        $drawn = $this->stories->random;
        $this->stories->random = new Randomizer(new Mt19937(crc32((string) json_encode($lines))));
        if ($this->chance(4)) {
            $if = fn (string $kind): array => $this->use('line', [
                'kind' => $kind, 'that' => ['kind' => 'all', 'of' => [$this->stories->condition($type, 2)]],
            ]);
            $comment = ['kind' => 'comment', 'text' => 'In a case'];
            $choices = array_filter($type->ownFields(), static fn (Field $field): bool => $field->type === FieldType::Choice);
            $choice = array_values($choices)[0];
            $that = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => $choice->name, 'value' => $choice->choices[0]->value]]];
            $once = ['at' => $this->use('timing', ['kind' => 'once_true', 'that' => $that])
                + $this->stories->one([[], ['within' => ['amount' => 10, 'unit' => 'working_day']]])];
            $last = array_pop($lines);
            $lines = [
                ...$lines,
                $if('if') + ($last['kind'] !== 'refuse' && $this->chance(2)
                    ? ['at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day', 'time' => '09:00']] : []),
                $last,
                ...($this->chance(2) ? [$if('or_if'), $comment] : []),
                ...($this->chance(3) ? [$if('if') + ['inner' => true], $comment, ['kind' => 'otherwise', 'inner' => true]] : []),
                ...($this->chance(2) ? [$this->use('line', ['kind' => 'otherwise']), $comment + $once] : []),
                ...($this->chance(3) ? [$this->use('line', ['kind' => 'in_all_cases']), $comment] : []),
            ];
        }
        $this->stories->random = $drawn;

        return $lines;
    }

    /** @return array<string, mixed> */
    private function trigger(RecordType $type): array
    {
        $choices = array_values(array_filter($type->ownFields(), static fn (Field $field): bool => $field->type === FieldType::Choice));
        $field = $this->stories->one($choices);
        $relation = $this->stories->one(Relation::of($this->schema, $type));
        $round = ['kind' => 'timetable', 'rrule' => $this->stories->one([
            'FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=MO,TH', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=FR', 'FREQ=MONTHLY;BYMONTHDAY=-1',
            'FREQ=MONTHLY;BYDAY=1MO', 'FREQ=YEARLY', 'FREQ=DAILY;UNTIL=20281231', 'FREQ=DAILY;COUNT=5',
        ]),
            'time' => '07:30', 'from' => '2026-11-02'] + ($this->chance(2) ? ['workingDays' => true] : []);

        return $this->use('trigger', $this->stories->one([
            ['kind' => 'created'], ['kind' => 'created_or_changed'], ['kind' => 'changed'], ['kind' => 'deleted'], ['kind' => 'by_hand'],
            ['kind' => 'changed', 'fields' => [$field->name], 'from' => $field->choices[0]->value, 'to' => $field->choices[1]->value],
            ['kind' => 'changed', 'fields' => array_values(array_unique([$field->name, $this->stories->one($type->ownFields())->name]))],
            [
                'kind' => $this->stories->one([
                    EventKind::Comment, EventKind::Reply, EventKind::File, EventKind::TaskDone, EventKind::SlipAnswered,
                ])->value,
            ] + ($this->chance(2) ? ['about' => 'a “leak”'] : []),
            ['kind' => 'reply'] + ($this->chance(2) ? ['from' => '@noor.example'] : []),
            ['kind' => 'hook_brought'] + (($hooks = $this->directory->hooks($type->name)) === [] || $this->chance(2) ? []
                : ['hook' => $this->stories->one($hooks)]),
            ['kind' => 'date', 'field' => $this->moment($type)] + $this->far(-9) + ($this->chance(3) ? ['yearly' => true] : []),
            ['kind' => 'quiet', 'of' => $this->stories->one(['change', 'activity', 'reply'])] + $this->far(1),
            ['kind' => 'quiet', 'of' => 'value', 'field' => $field->name, 'value' => $field->choices[0]->value] + $this->far(1),
            $round, $round + [
                'per' => $this->stories->one([
                    ['kind' => 'owner'], ['kind' => 'creator'], ['kind' => 'manager', 'of' => ['kind' => 'owner']],
                ]),
            ],
            [
                'kind' => 'related', 'related' => $relation->name(),
                'happening' => $this->stories->one(['created', 'deleted', 'created_or_changed']),
            ],
            [
                'kind' => 'related', 'related' => $relation->name(), 'happening' => 'changed',
            ] + ($this->chance(2) ? ['fields' => [$this->stories->one($relation->type->ownFields())->name]] : []) + ($this->chance(2)
                ? ['where' => $this->stories->condition($relation->type, 2)] : []),
        ]));
    }

    /** @return array<string, mixed> */
    private function guard(RecordType $type): array
    {
        $guard = $this->stories->one([
            ['kind' => 'every_time'], ['kind' => 'becomes_true'], ['kind' => 'once_per_record'], [
                'kind' => 'once_per_value',
                'field' => $this->stories->one(array_filter(
                    $type->ownFields(),
                    static fn (Field $field): bool => $field->type === FieldType::Choice,
                ))->name,
            ],
            [
                'kind' => 'once_in_period', 'period' => ['amount' => 3, 'unit' => $this->stories->one(['hour', 'working_day', 'month'])],
            ], ['kind' => 'so_many_times', 'times' => 3],
        ]);
        $used = ! in_array($guard['kind'], ['every_time', 'becomes_true'], true);

        return $this->use('guard', $guard) + ($used && $this->chance(3) ? ['again' => $this->stories->condition($type, 2)] : []);
    }

    /** @return array<string, mixed> a line with its time and what stands behind it */
    private function placed(RecordType $type): array
    {
        $line = $this->line($type);
        if ($line['kind'] !== 'refuse' && $this->chance(2)) {
            $line['at'] = $this->timing($type);
            $line += $this->chance(4) ? ['tooLate' => ['amount' => 2, 'unit' => 'day']] : [];
        }
        if (in_array($line['kind'], ['give_task', 'give_tasks'], true) && $this->chance(2)) {
            $line['key'] = 'key_'.(count($this->keys) + 1);
            $this->keys[] = $line['key'];
        }
        if ($line['kind'] === 'sign_off') {
            $line['key'] = 'asked_'.(count($this->signOffs) + 1);
            $this->signOffs[$line['key']] = count($line['steps']);
        }
        if ($line['kind'] === 'call') {
            $line['key'] = 'called_'.(count($this->calls) + 1);
            $this->calls[] = $line['key'];
        }
        if ($line['kind'] === 'slip') {
            $line['key'] = 'sent_'.(count($this->slips) + 1);
            $this->slips[$line['key']] = array_merge(...array_map(
                static fn (array $question): array => $question['options'] ?? [],
                $line['asks'] ?? $this->directory->slip('', $line['slip'])['asks'] ?? [],
            ));
        }

        return $line + ($this->chance(5) ? ['onlyIf' => $this->stories->condition($type, 2)] : []);
    }

    /** @return array<string, mixed> */
    private function timing(RecordType $type): array
    {
        $kinds = [
            ['kind' => 'after'] + $this->far(1), ['kind' => 'date', 'field' => $this->moment($type)] + $this->far(-9),
            ['kind' => 'every', 'times' => $this->stories->random->getInt(1, 12)] + $this->far(1),
        ];
        foreach (array_slice($this->keys, -1) as $key) {
            $kinds[] = ['kind' => 'done', 'line' => $key] + $this->stories->one([
                [], ['timeOut' => ['amount' => 3, 'unit' => 'day']],
                ['timeOut' => ['amount' => 3, 'unit' => 'working_day'], 'then' => 'anyway'],
            ]) + $this->far(0);
            $kinds[] = ['kind' => 'late', 'line' => $key] + $this->far(-5);
        }
        foreach (array_slice($this->signOffs, -1) as $key => $steps) {
            $ends = ['agreed', 'declined', 'withdrawn', 'timed_out', 'stopped'];
            $step = min($steps, $this->stories->random->getInt(1, 2));
            $kinds[] = ['kind' => 'step_agreed', 'line' => $key, 'step' => $step] + $this->far(0);
            $kinds[] = ['kind' => 'signed_off', 'line' => $key, 'status' => $this->stories->one($ends)] + $this->far(0);
        }

        foreach (array_slice($this->calls, -1) as $key) {
            $kinds[] = ['kind' => 'called', 'line' => $key, 'ended' => $this->stories->one(['succeeded', 'failed'])] + $this->far(0);
        }
        foreach (array_slice($this->slips, -1) as $key => $answers) {
            $kinds[] = ['kind' => 'answered', 'line' => $key]
                + ($this->chance(2) && $answers !== [] ? ['with' => $this->stories->one($answers)] : []) + $this->far(0);
            $kinds[] = ['kind' => 'run_out', 'line' => $key] + $this->far(0);
        }

        return $this->use('timing', $this->heard($this->stories->one($kinds)));
    }

    /**
     * What waits for a sign-off waits for each yes, now and then, or for whichever end. What is drawn for it is drawn apart, too.
     *
     * @param  array<string, mixed>  $timing
     * @return array<string, mixed>
     */
    private function heard(array $timing): array
    {
        $of = array_diff_key($timing, ['status' => true]);
        $ways = $timing['kind'] !== 'signed_off' ? [$timing] : [
            $timing, ['status' => 'over'] + $timing, ['kind' => 'people_agree', 'who' => 'first'] + $of,
            ['kind' => 'people_agree', 'who' => 'each'] + $of,
        ];

        return $ways[crc32((string) json_encode($timing)) % count($ways)];
    }

    /** @return array<string, mixed> */
    private function line(RecordType $type): array
    {
        $target = $this->stories->one(array_values(array_filter(
            Targets::offers($this->context($type)),
            static fn (Offer $offer): bool => $offer->value !== null,
        )));
        $line = match ($this->stories->random->getInt(0, 14)) {
            0 => ['kind' => 'set_fields', 'set' => $this->assignments($type, $type)],
            1 => $this->elsewhere($type, (string) $target->value),
            2 => ['kind' => 'give_task'] + $this->task($type),
            3 => ['kind' => 'give_tasks', 'tasks' => [$this->task($type), $this->task($type)]],
            4 => ['kind' => 'remind', 'to' => $this->person($type), 'text' => 'Look at {number}: "quotes", “more” and \\'],
            5 => $this->message($type),
            6 => ['kind' => 'escalate', 'rungs' => $this->rungs($type)],
            7 => $this->record($type),
            8 => ['kind' => 'assign', 'to' => $this->person($type)],
            9 => ['kind' => 'comment', 'text' => "Seen:\n{{$type->title}}"],
            10 => ['kind' => 'follow', 'who' => $this->person($type)] + ($this->chance(3) ? ['stop' => true] : []),
            11 => $this->signOff($type),
            12 => $this->slip($type),
            13 => $this->directory->endpoints() === [] ? $this->slip($type) : $this->call($type),
            default => [
                'kind' => 'refuse', 'message' => 'Not so.',
            ] + ($this->chance(2) ? ['field' => $this->stories->one($type->ownFields())->name] : []),
        };

        return $this->use('line', $line);
    }

    /** @return array<string, mixed> */
    private function signOff(RecordType $type): array
    {
        $steps = [];
        for ($count = $this->stories->random->getInt(1, 3); $count > 0; $count--) {
            $who = $this->use('decides', $this->stories->one([
                ['kind' => 'people', 'people' => [$this->person($type), $this->person($type)]],
                ['kind' => 'levels_up', 'levels' => 2, 'from' => $this->person($type)],
                ['kind' => 'team', 'team' => $this->stories->one($this->directory->teams())],
                ['kind' => 'role', 'role' => $this->stories->one(['manager', 'member'])],
            ]));
            $late = $this->stories->one([[], ['late' => $this->stories->one(['up', 'again', 'deputy', 'agree', 'decline', 'stop'])], [
                'late' => 'pass_on', 'instead' => $this->person($type),
            ]]);
            $steps[] = ['who' => $who, 'within' => ['amount' => 2, 'unit' => $this->stories->one(['hour', 'day', 'working_day'])]]
                + $late + $this->stories->one([[], ['inTurn' => true], ['needed' => 1]])
                + $this->stories->one([
                    [], ['remind' => ['amount' => 1, 'unit' => 'hour']],
                    ['remind' => ['amount' => 1, 'unit' => 'day'], 'reminders' => 3, 'again' => 2],
                ])
                + ($this->chance(4) ? ['task' => true] : [])
                + ($this->chance(6) ? ['until' => $this->stories->condition($type, 2)] : [])
                + ($this->chance(4) ? ['correct' => [$this->stories->one($this->settable($type))->name]] : [])
                + ($this->chance(4) ? ['onlyIf' => $this->stories->condition($type, 2)] : []);
        }

        return ['kind' => 'sign_off', 'steps' => $steps] + ($this->chance(2) ? ['why' => 'Of {number}'] : [])
            + $this->stories->one([[], ['hold' => 'locked'], ['hold' => 'catch_up']]);
    }

    /** @return array<string, mixed> */
    private function call(RecordType $type): array
    {
        $field = $this->stories->one($type->ownFields())->name;

        return ['kind' => 'call', 'endpoint' => $this->directory->endpoints()[0], 'send' => $this->stories->one([
            [['path' => $type->title, 'name' => 'name'], ['text' => '{number}: a “text” of {'.$type->title.'}', 'name' => 'about.text']],
            [
                ['path' => $type->title, 'name' => 'about.name'], ['path' => $field, 'name' => $field],
                ['path' => 'created_at', 'name' => 'at'],
            ],
        ])] + ($this->chance(2) ? ['keep' => [['from' => 'number', 'field' => $this->stories->one($this->settable($type))->name]]] : []);
    }

    /** @return array<string, mixed> */
    private function slip(RecordType $type): array
    {
        $asks = [];
        for ($count = $this->stories->random->getInt(1, 4); $count > 0; $count--) {
            $label = 'Question '.(count($asks) + 1).': “so”?';
            $fields = array_values(array_filter($this->settable($type), AskField::isMeant(...)));
            $before = array_values(array_filter($asks, static fn (array $one): bool => isset($one['options'])));
            $asks[] = $this->use('question', $this->stories->one([
                ['kind' => 'choice', 'label' => $label, 'options' => ['Done', 'Not done', 'Later, if so']],
                ['kind' => $this->stories->one(['text', 'date', 'tick', 'file', 'signature']), 'label' => $label],
                ['kind' => 'number', 'label' => $label] + $this->stories->one([[], ['least' => 1], ['least' => 1, 'most' => 9]]),
                ['kind' => 'field', 'path' => $this->stories->one($fields)->name, 'label' => $label],
            ])) + ($this->chance(2) ? ['needed' => true] : [])
                + ($before !== [] && $this->chance(2) ? ['onlyIf' => [
                    'question' => $before[0]['label'], 'is' => $this->stories->one($before[0]['options']),
                ]] : []);
        }
        $to = ['to' => [$this->stories->one([
            ['kind' => 'address', 'address' => 'crew@larkmoss.example'], ['kind' => 'person', 'person' => $this->person($type)],
        ])]];
        $form = $this->directory->slips($type->name) !== [] && $this->chance(4) ? ['slip' => $this->directory->slips($type->name)[0]]
            : ['subject' => 'About {number}', 'body' => '<p>Is it so?</p>', 'asks' => $asks];
        $references = array_values(array_filter(
            $this->settable($type),
            static fn (Field $field): bool => $field->type === FieldType::Reference,
        ));
        $people = array_values(array_filter($this->settable($type), static fn (Field $field): bool => $field->type === FieldType::Person));
        $then = $this->stories->one([
            ...($references === [] ? [] : [['kind' => 'record', 'field' => $this->stories->one($references)->name]
                + $this->stories->one([[], ['most' => 3]])]),
            ...($people === [] ? [] : [[
                'kind' => 'team', 'team' => $this->stories->one($this->directory->teams()), 'field' => $this->stories->one($people)->name,
            ]]),
        ]);

        return ['kind' => 'slip'] + $to + $form
            + $this->stories->one([[], ['remind' => ['amount' => 1, 'unit' => 'day']]]) + $this->stories->one([[], ['texts' => 2]])
            + $this->stories->one([[], ['within' => ['amount' => 2, 'unit' => 'day']], [
                'within' => ['amount' => 2, 'unit' => 'working_day'], 'then' => $then,
            ]]);
    }

    /** @return non-empty-list<Field> */
    private function settable(RecordType $type): array
    {
        $fields = array_values(array_filter($type->fields, static fn (Field $field): bool => $field->isSettable()));

        return $fields === [] ? throw new \LogicException('A record has something to fill in.') : $fields;
    }

    /** @return array<string, mixed> */
    private function elsewhere(RecordType $type, string $on): array
    {
        $relation = Relation::named($this->schema, $type, $on);
        $about = $this->schema->types[$relation?->children === true ? $relation->type->name
            : (string) $this->schema->path($type, $on)?->field->target];

        return [
            'kind' => 'set_fields', 'on' => $on, 'set' => $this->assignments($about, $type),
        ] + ($relation?->children === true && $this->chance(2) ? ['where' => $this->stories->condition($about, 2)] : []);
    }

    /** @return array<string, mixed> */
    private function record(RecordType $type): array
    {
        $made = $this->stories->one($this->schema->types);
        $name = $made->name.(isset($this->made[$made->name]) ? '_'.(count($this->made) + 1) : '');
        $set = $this->assignments($made, $type);
        foreach ($made->ownFields() as $field) {
            $isWanted = $field->required || $field->target === $type->name;
            if ($isWanted && ! in_array($field->name, array_column($set, 'field'), true)) {
                $set[] = [
                    'field' => $field->name,
                    'to' => $field->target === $type->name ? $this->use('value', ['kind' => 'this']) : [
                        'kind' => 'value', 'value' => $this->stories->operand($field),
                    ],
                ];
            }
        }
        $this->made[$name] = $made->name;

        return ['kind' => 'create_record', 'type' => $made->name, 'set' => $set, 'as' => $name];
    }

    /** @return list<array<string, mixed>> */
    private function assignments(RecordType $about, RecordType $own): array
    {
        $set = [];
        for ($count = $this->stories->random->getInt(1, 3); $count > 0; $count--) {
            $fields = array_values(array_filter(
                $about->ownFields(),
                static fn (Field $field): bool => $field->formula === null && ! in_array($field->name, array_column($set, 'field'), true),
            ));
            $fitting = array_filter($fields, fn (Field $field): bool => in_array($field->target, $this->made, true));
            $field = $this->stories->one($fitting !== [] ? $fitting : $fields);
            $set[] = ['field' => $field->name, 'to' => $this->value($field, $own)];
        }

        return $set;
    }

    /** @return array<string, mixed> */
    private function value(Field $field, RecordType $own): array
    {
        $alike = array_values(array_filter(
            $own->fields,
            static fn (Field $other): bool => $other->type === $field->type && $other->target === $field->target,
        ));
        $decimals = array_values(array_filter($own->fields, static fn (Field $other): bool => $other->type->isDecimal()));
        $moments = array_values(array_filter($own->fields, static fn (Field $other): bool => $other->type === $field->type));
        $kind = $this->stories->one(array_filter(
            AssignedValues::ALL, static fn (string $value): bool => $value !== CalendarDay::class && $value::fits($field),
        ))::kind();
        $fixed = ['kind' => 'value', 'value' => $this->stories->operand($field)];
        $made = array_search($field->target, $this->made, true);
        $value = $made !== false && $this->chance(2) ? ['kind' => 'made', 'as' => $made] : match ($kind) {
            'add', 'subtract', 'multiply' => [
                'kind' => $kind,
                'amount' => $decimals !== [] && $this->chance(2) ? ['path' => $this->stories->one($decimals)->name] : '2.5',
            ] + ($field->min !== null && $this->chance(2) ? ['beyond' => $this->stories->one(['stop', 'refuse'])] : []),
            'shift' => [
                'kind' => 'shift', 'amount' => $this->stories->one([-3, 2]), 'unit' => $this->stories->one(['day', 'month', 'working_day']),
                'from' => $this->stories->one(['now', 'itself', ...array_map(static fn (Field $other): string => $other->name, $moments)]),
            ],
            'person' => ['kind' => 'person', 'person' => $this->person($own)],
            'add_member', 'remove_member' => ['kind' => $kind, 'member' => $fixed['value']],
            'text' => ['kind' => 'text', 'text' => "x {{$own->title}}"],
            'append' => ['kind' => 'append', 'text' => "x {{$own->title}}"],
            'copy' => $alike === [] ? $fixed : ['kind' => 'copy', 'from' => $this->stories->one($alike)->name],
            'formula' => $field->type->isDecimal() && $decimals !== [] ? [
                'kind' => 'formula', 'formula' => $this->stories->one($decimals)->name.' * 2',
            ] : $fixed,
            'this' => $field->target === $own->name ? ['kind' => 'this'] : $fixed,
            'made' => $fixed,
            'clear' => $field->required ? $fixed : ['kind' => 'clear'],
            'value' => $fixed,
            default => ['kind' => $kind],
        };

        return $this->use('value', self::byCalendar($value));
    }

    /**
     * A date counted from another is a day of the calendar, now and then; drawn apart, so that all else stays as it was.
     *
     * @param  array<string, mixed>  $value
     * @return array<string, mixed>
     */
    private static function byCalendar(array $value): array
    {
        $days = ['working_day', 'friday', 'month_end', 'month_end_working', 'next_month', 'next_month_working', 'quarter_end'];
        $drawn = crc32((string) json_encode($value));

        return $value['kind'] !== 'shift' || $drawn % 3 > 0 ? $value
            : ['kind' => 'calendar_day', 'day' => $days[$drawn % 7], 'from' => $value['from']];
    }

    /** @return array<string, mixed> */
    private function task(RecordType $type): array
    {
        return [
            'to' => $this->person($type), 'title' => 'See {number}',
        ] + ($this->chance(2) ? ['priority' => $this->stories->one(['low', 'high'])] : []) + ($this->chance(3) ? ['notes' => "Two\nlines"]
            : [])
            + $this->stories->one([[], ['due' => $this->far(0)], ['due' => ['from' => $this->moment($type)] + $this->far(-9)]]);
    }

    /** @return array<string, mixed> */
    private function message(RecordType $type): array
    {
        $channel = $this->stories->one(Channel::cases());
        $offers = array_values(array_filter(
            (Recipients::chooser($this->context($type))->offers)(),
            fn (Offer $offer): bool => match (is_array($offer->value) ? $offer->value['kind'] : null) {
                'address' => $offer->value !== ['kind' => 'address', 'address' => ''],
                'field' => $channel === Channel::Email
                    && $this->schema->path($type, (string) $offer->value['path'])?->field->type !== FieldType::Phone,
                default => true,
            },
        ));
        $to = static fn (Offer $offer): mixed => $offer->value;
        $mail = $channel === Channel::Email;

        return [
            'kind' => 'send_message',
            'to' => [
                $to($this->stories->one($offers)),
                ...($mail && $this->chance(3) ? [['kind' => 'address', 'address' => 'desk@larkmoss.example']] : []),
            ],
            'channel' => $channel->value,
        ]
            + ($channel === Channel::Sms ? [] : ['subject' => 'About {number}']) + ['body' => $mail ? '<p>Hello</p>' : 'Hello {number}']
            + ($mail && $this->chance(3) ? ['cc' => [$to($this->stories->one($offers))]] : []) + ($mail
                && $this->chance(4) ? ['replyTo' => [['kind' => 'person', 'person' => ['kind' => 'owner']]]] : []);
    }

    /** @return array<string, mixed> */
    private function sendList(RecordType $type): array
    {
        $columns = array_values(array_unique(array_map(fn (): string => $this->stories->one($type->ownFields())->name, range(1, 3))));

        return $this->use('line', [
            'kind' => 'send_list', 'subject' => 'What is open', 'columns' => $columns,
        ] + $this->stories->one([[], ['channel' => 'app'], ['channel' => 'email']]) + ($this->chance(2) ? ['body' => 'Good morning'] : [])
            + ($this->chance(2) ? ['by' => $this->moment($type), 'days' => $this->stories->random->getInt(0, 9)] + ($this->chance(2)
                ? ['workingDays' => true] : []) : []));
    }

    /** @return list<array<string, mixed>> */
    private function rungs(RecordType $type): array
    {
        $rungs = [];
        for ($count = $this->stories->random->getInt(1, 3); $count > 0; $count--) {
            $rungs[] = ($this->chance(3) ? [] : ['after' => $this->far(1)]) + [
                'to' => $this->person($type),
                'do' => $this->stories->one([['tell'], ['tell', 'reassign'], ['raise', 'tell'], ['tell', 'reassign', 'raise']]),
            ];
        }

        return $rungs;
    }

    /** @return array<string, mixed> */
    private function person(RecordType $type): array
    {
        $person = $this->stories->one(PersonExpressions::offers($this->context($type)))->value;
        $person = is_array($person) ? $person : ['kind' => 'owner'];
        // Offered only below a line that asks for a sign-off; sound anywhere.
        $person = $this->chance(12) ? ['kind' => $this->stories->one(['decider', 'asker'])] : $person;

        return $this->use('person', $this->chance(8) ? ['kind' => 'manager', 'of' => $person] : $person);
    }

    /** @return array<string, mixed> an amount of time and what can stand behind it */
    private function far(int $least): array
    {
        $unit = $this->stories->one(Unit::cases());
        $amount = $this->stories->random->getInt($least, $unit === Unit::Year ? 9 : 20);
        // Nothing away from a date has no unit to speak of.
        [$amount, $unit] = $amount === 0 ? [0, Unit::Day] : [$amount, $unit];

        return [
            'amount' => $amount, 'unit' => $unit->value,
        ] + ($unit->isShort() ? []
            : $this->stories->one([[], [], ['time' => '09:05'], ['roll' => 'next'], ['time' => '23:30', 'roll' => 'previous'],
                ['time' => '08:00', 'clock' => 'owner']]));
    }

    private function moment(RecordType $type): string
    {
        return $this->stories->one(array_values(array_filter(
            $type->fields,
            static fn (Field $field): bool => $field->type->isMoment(),
        )))->name;
    }

    private function context(RecordType $type): Context
    {
        return new Context($this->schema, $this->directory, $type, $this->zone);
    }

    private function chance(int $of): bool
    {
        return $this->stories->random->getInt(1, $of) === 1;
    }

    /**
     * @param  array<string, mixed>  $json
     * @return array<string, mixed>
     */
    private function use(string $place, array $json): array
    {
        $this->used["{$place}: {$json['kind']}"] = true;

        return $json;
    }
}
