<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Firing;
use VividLedger\Engine\RuleIndex;
use VividLedger\Explain\EntryWords;
use VividLedger\Formula\ComputedFields;
use VividLedger\House\Directory;
use VividLedger\House\Person;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rehearse\Outline;
use VividLedger\Rehearse\Played;
use VividLedger\Rehearse\Proposer;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Time\Clock;

/** A small company in memory: tickets of customers, five people, and a clock that stands still. */
final class World extends Memory implements Clock, Directory
{
    public function __construct()
    {
        parent::__construct(self::schema());
        $this->fallback = 5;
        $this->now = new \DateTimeImmutable('2026-11-24T08:40:00Z');
        $this->people = [
            1 => new Person(1, 'edda', 'Edda Marlow', team: 'Board', email: 'edda@larkmoss.example', role: 'manager'),
            2 => new Person(2, 'tomas', 'Tomas Weld', 1, team: 'Sales', email: 'tomas@larkmoss.example', role: 'manager'),
            3 => new Person(3, 'ines', 'Ines Okafor', 2, team: 'Sales', email: 'ines@larkmoss.example', phone: '+49 30 5550 0003'),
            4 => new Person(4, 'gone', 'Gus Gone', 2, false, 'Sales'),
            5 => new Person(5, 'stand', 'Stan Inn', team: 'Office', email: 'stan@larkmoss.example'),
        ];
        $this->records['customer:1'] = self::made('customer', 1, ['name' => 'Brine & Barrow Hotel', 'plan' => 'full', 'owner' => 2]);
        $this->records['customer:2'] = self::made('customer', 2, ['name' => 'Quayside Clinic', 'plan' => null, 'owner' => null]);
    }

    public static function schema(): Schema
    {
        static $schema = null;

        return $schema ??= new Schema([
            'customer' => new RecordType('customer', 'Customer', 'Customers', 'C', 'name', 'owner', [
                new Field('name', 'Name', FieldType::Text, required: true),
                new Field('plan', 'Plan', FieldType::Choice, choices: [new Choice('basic', 'Basic'), new Choice('full', 'Full care')]),
                new Field('owner', 'Owner', FieldType::Person),
                new Field('key', 'Key account', FieldType::Tick),
                new Field('open', 'Open tickets', FieldType::Number, scale: 0, min: '0', max: '5'),
                new Field('email', 'E-mail', FieldType::Email),
                new Field('language', 'Language', FieldType::Choice, choices: [new Choice('en', 'English'), new Choice('de', 'German')]),
            ]),
            'ticket' => new RecordType('ticket', 'Ticket', 'Tickets', 'T', 'subject', 'owner', [
                new Field('subject', 'Subject', FieldType::Text, required: true),
                new Field('customer', 'Customer', FieldType::Reference, target: 'customer'),
                new Field(
                    'status',
                    'Status',
                    FieldType::Choice,
                    choices: [new Choice('open', 'Open'), new Choice('waiting', 'Waiting'), new Choice('closed', 'Closed', closes: true)],
                ),
                new Field(
                    'priority',
                    'Priority',
                    FieldType::Choice,
                    choices: [new Choice('low', 'Low'), new Choice('high', 'High'), new Choice('urgent', 'Urgent')],
                ),
                new Field('owner', 'Owner', FieldType::Person),
                new Field('due', 'Due', FieldType::Date),
                new Field('since', 'Since', FieldType::DateTime),
                new Field('cost', 'Cost', FieldType::Money, currency: 'EUR'),
                new Field('hours', 'Hours', FieldType::Number, scale: 1),
                new Field('share', 'Share', FieldType::Percent, scale: 1),
                new Field('paid', 'Paid', FieldType::Tick),
                new Field('code', 'Code', FieldType::Text, maxLength: 5),
                new Field('email', 'Email', FieldType::Email),
                new Field('notes', 'Notes', FieldType::LongText, maxLength: 1000),
                new Field(
                    'rooms',
                    'Rooms',
                    FieldType::Choices,
                    choices: [new Choice('lobby', 'Lobby'), new Choice('spa', 'Spa'), new Choice('bar', 'Bar')],
                ),
                new Field('tags', 'Tags', FieldType::Tags),
                new Field('rate', 'Cost an hour', FieldType::Money, currency: 'EUR', formula: 'cost / hours'),
                new Field('parent', 'Part of', FieldType::Reference, target: 'ticket'),
            ]),
        ]);
    }

    /** @param  array<string, string|int|bool|null>  $values */
    public static function made(string $type, int $id, array $values = [], int $version = 1): Record
    {
        $all = [];
        foreach (self::schema()->types[$type]->fields as $name => $field) {
            $all[$name] = $field->type === FieldType::Tick ? false : null;
        }

        return new Record(
            $type,
            $id,
            $version,
            ComputedFields::with(self::schema()->types[$type], array_replace($all, ['created_by' => 3], $values)),
        );
    }

    /** @param  array<string, string|int|bool|null>  $values */
    public static function ticket(array $values = [], int $version = 1): Record
    {
        return self::made(
            'ticket',
            7,
            $values + ['subject' => 'Ficus wall wilting', 'status' => 'open', 'priority' => 'low', 'owner' => 3, 'customer' => 1],
            $version,
        );
    }

    public function zone(): \DateTimeZone
    {
        return new \DateTimeZone('Europe/Berlin');
    }

    /** @param  array<string, mixed>  $file what differs from a sound little rule */
    public function read(array $file): RulePage
    {
        return (new RuleReader(self::schema(), $this, $this->zone()))->read($file + self::file());
    }

    /** @param  array<string, mixed>  $file */
    public function rule(array $file, int $id = 1): Rule
    {
        $page = (new RuleReader(self::schema(), $this, $this->zone()))->read($file + self::file(), $id, 1);

        return $page->rule ?? throw new \LogicException('Not sound: '.json_encode($page->problems));
    }

    /** @return array<string, mixed> a sound little rule that may fire on anything */
    public static function file(): array
    {
        return [
            'name' => 'A rule', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
            ],
        ];
    }

    /** @return array<string, mixed> a line that sets one field */
    public static function set(string $field, mixed $value): array
    {
        $to = $value === null ? ['kind' => 'clear'] : (is_array($value) ? $value : ['kind' => 'value', 'value' => $value]);

        return ['kind' => 'set_fields', 'set' => [['field' => $field, 'to' => $to]]];
    }

    public function engine(): Engine
    {
        return new Engine(self::schema(), $this->zone());
    }

    /** @param  list<Rule>  $rules */
    public function decide(array $rules, ?Record $before, ?Record $after): Decision
    {
        return $this->engine()->decide(new Change($before, $after, 3, $this->now), new RuleIndex($rules), $this, $this);
    }

    /**
     * Saves a record again and again, as production does, keeping the guard keys.
     *
     * @param  list<Rule>  $rules
     * @param  list<array<string, string|int|bool|null>>  $states  the values of each save
     * @return list<list<string>> names of the rules that fired on each save
     */
    public function saves(array $rules, array $states): array
    {
        $fired = [];
        $before = null;
        foreach ($states as $index => $values) {
            $after = $before === null ? self::ticket($values) : new Record(
                'ticket',
                7,
                $index + 1,
                array_replace($before->values, $values),
            );
            if ($before !== null && $after->values === $before->values) {
                $fired[] = [];

                continue;
            }
            $decision = $this->decide($rules, $before, $after);
            foreach ($decision->firings() as $firing) {
                $this->use($firing);
            }
            $fired[] = array_map(static fn (Firing $firing): string => $firing->rule->name, $decision->firings());
            $before = $decision->after;
        }

        return $fired;
    }

    /**
     * Plays a rule's life on the ticket, from the change that is proposed.
     *
     * @param  list<WhatIf>  $whatIfs
     */
    public function rehearse(Rule $rule, array $whatIfs = [], ?\DateTimeImmutable $atLeast = null): Played
    {
        $record = $this->records["{$rule->on}:".($rule->on === 'ticket' ? 7 : 1)];
        assert($record instanceof Record);
        $opening = (new Proposer(self::schema(), $this->zone()))->opening($rule, $record, $this, $this->now);

        return (new Rehearsal(self::schema(), $this->zone()))->play(
            new Script($record, $opening, $whatIfs, 3),
            $rule,
            [$rule],
            $this,
            null,
            $atLeast,
        );
    }

    /** @return list<string> */
    public function outline(Played $played): array
    {
        return (new Outline(new EntryWords(self::schema(), $this, new Display($this, $this->zone())), new Display($this, $this->zone())))
            ->of($played);
    }
}
