<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Evidence\Rules\RulesInForce;
use App\Models\Columns;
use App\Models\Rules\Proof;
use App\Models\Rules\StoredRule;
use App\Models\Setup\CompanySettings;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Collection;
use VividLedger\Engine\Reason;
use VividLedger\Explain\EntryWords;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rehearse\Boundaries;
use VividLedger\Rehearse\InvalidScript;
use VividLedger\Rehearse\Outline;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rehearse\ScriptReader;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/** Rehearsals kept as tests of a rule: each with its record, the records it looks at, and what is expected. */
final readonly class Proofs
{
    private const LONGEST_TROUBLE = 160;

    private const LONGEST_NAME = 120;

    private const STAND_LENGTH = 40;

    /** Played at each edit; more would be felt. */
    private const MOST_AT_AN_EDIT = 60;

    public function __construct(
        private SchemaStore $schemas,
        private RuleReader $reader,
        private RulesInForce $rules,
        private Rehearsals $rehearsals,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    /** @param  array<string, mixed>  $asked  as for a rehearsal */
    public function keep(int $ruleId, Rule $rule, string $name, array $asked, int $by): int
    {
        $name = trim($name);
        if ($name === '' || mb_strlen($name) > self::LONGEST_NAME) {
            $problem = ['at' => '/name', 'code' => 'invalid_name', 'message' => Words::say('Say what the proof shows.')];
            throw new DomainError(
                'invalid_name',
                Words::say('Give the proof a name of at most {most} characters.', most: self::LONGEST_NAME),
                RefusedFor::Invalid,
                [$problem],
            );
        }
        $facts = new SeenFacts($this->schemas, $this->clock->now(), $this->company->zone());
        $rehearsed = $this->rehearsals->play($rule, $asked, $by, $facts);
        $script = $rehearsed->script;
        $written = [
            'record' => ['id' => $script->record->id, 'version' => $script->record->version, 'values' => (object) $script->record->values],
            'opening' => ScriptReader::written($script->opening), 'whatIfs' => $asked['whatIfs'] ?? [],
            'others' => $rehearsed->withOthers, 'actor' => $by,
        ];

        return $this->insert($ruleId, $rule, $name, $written, array_map(self::written(...), $facts->seen()), $by);
    }

    /**
     * @param  array<string, mixed>  $script
     * @param  list<array<string, mixed>>  $facts
     * @param  ?list<string>  $expected  null for what it comes to now
     */
    public function insert(int $ruleId, Rule $rule, string $name, array $script, array $facts, int $by, ?array $expected = null): int
    {
        // As it comes back from where it is kept.
        [$script, $facts] = [json_decode((string) json_encode($script), true), json_decode((string) json_encode($facts), true)];
        $expected ??= $this->outline($rule, $script, $facts, $this->rules->with($rule));

        return Proof::query()->create([
            'rule_id' => $ruleId, 'name' => $name, 'script' => $script, 'facts' => $facts, 'expected' => $expected,
            'kept_at' => $this->clock->now(), 'kept_by' => $by,
        ])->id;
    }

    /** @return Collection<int, Proof> those of a rule, the oldest first */
    public function of(int $ruleId): Collection
    {
        return Proof::query()->where('rule_id', $ruleId)->with(['keeper', 'accepter'])->orderBy('id')->get();
    }

    /**
     * Plays proofs with a rule as it is being written: its own, and those of other rules.
     *
     * @return list<array{id: int, rule: int, ruleName: string, name: string, expected: list<string>, actual: list<string>}> those of its
     *     own, and of others that no longer hold
     */
    public function tried(Rule $rule): array
    {
        $all = $this->rules->with($rule);
        $byId = [];
        foreach ($all as $known) {
            $byId[$known->id] = $known;
        }
        $tried = [];
        $own = Proof::query()->where('rule_id', $rule->id)->orderBy('id')->limit(self::MOST_AT_AN_EDIT)->get();
        $others = Proof::query()->where('rule_id', '<>', $rule->id)->orderBy('id')->limit(self::MOST_AT_AN_EDIT - $own->count())->get();
        foreach ([...$own, ...$others] as $proof) {
            $of = $byId[$proof->rule_id] ?? null;
            $actual = $of === null ? $proof->expected : $this->outline($of, $proof->script, $proof->facts, $all);
            if ($of !== null && ($of->id === $rule->id || $proof->expected !== $actual)) {
                $tried[] = [
                    'id' => $proof->id, 'rule' => $of->id, 'ruleName' => $of->name, 'name' => $proof->name,
                    'expected' => $proof->expected, 'actual' => $actual,
                ];
            }
        }

        return $tried;
    }

    /** What a proof comes to with a rule is what is expected from now on. */
    public function accept(int $id, ?Rule $edited, int $by): void
    {
        $proof = Proof::query()->find($id) ?? throw DomainError::missing(Words::say('There is no proof {id}.', id: $id));
        $own = $edited?->id === $proof->rule_id ? $edited : $this->current($proof->rule_id);
        if ($own === null) {
            throw new DomainError(
                'unfinished_rule',
                Words::say('The rule is not finished, so the proof cannot be played.'),
                RefusedFor::Conflict,
            );
        }
        $proof->update([
            'expected' => $this->outline($own, $proof->script, $proof->facts, $this->rules->with($edited ?? $own)), 'actual' => null,
            'holds' => true, 'checked_stand' => '', 'accepted_at' => $this->clock->now(), 'accepted_by' => $by,
        ]);
    }

    public function drop(int $id): void
    {
        Proof::query()->whereKey($id)->delete();
    }

    /** Plays what has not been played since the rules, or anything they name, last changed. */
    public function work(int $most): int
    {
        $stand = $this->stand();
        $proofs = Proof::query()->where('checked_stand', '<>', $stand)->orderBy('id')->limit($most)->get();
        $read = [];
        foreach ($proofs as $proof) {
            [$own, $rules] = $read[$proof->rule_id] ??= $this->standing($proof->rule_id);
            try {
                $actual = $own === null ? $proof->expected : $this->outline($own, $proof->script, $proof->facts, $rules);
            } catch (\Throwable $broken) {
                // One that cannot be played says so, and the others are tried all the same.
                report($broken);
                $actual = ['It could not be played: '.mb_strimwidth($broken->getMessage(), 0, self::LONGEST_TROUBLE, '…')];
            }
            $holds = $actual === $proof->expected;
            // What has been accepted meanwhile was played already.
            Proof::query()->whereKey($proof->id)->where('expected', $proof->getRawOriginal('expected'))->update([
                'holds' => $holds, 'actual' => $holds ? null : Columns::json($actual), 'checked_stand' => $stand,
            ]);
        }

        return $proofs->count();
    }

    /**
     * The cases at a rule's boundaries, each with what it comes to.
     *
     * @return list<array{name: string, script: array<string, mixed>, outline: list<string>, fires: bool}>
     */
    public function proposed(Rule $rule, int $by): array
    {
        $facts = $this->rehearsals->facts();
        $ground = $this->rehearsals->ground($rule, $facts);
        $cases = [];
        [$schema, $zone] = [$this->schemas->schema(), $this->company->zone()];
        foreach ((new Boundaries($schema, $zone))->of($rule, $ground, $facts, $this->clock->now()) as [$name, $script]) {
            $alone = new Script($script->record, $script->opening, [], $by);
            $played = (new Rehearsal($schema, $zone))->play($alone, $rule, [$rule], $this->rehearsals->facts());
            $opening = json_decode(Columns::json(ScriptReader::written($script->opening)), true);
            $cases[] = [
                'name' => $name,
                'script' => ['record' => ['values' => $script->record->values], 'opening' => $opening, 'whatIfs' => [], 'others' => false],
                'outline' => $this->outlined()->of($played), 'fires' => $played->why?->reason === Reason::Fires,
            ];
        }

        return $cases;
    }

    /**
     * @param  array<string, mixed>  $script
     * @param  list<array<string, mixed>>  $facts
     * @param  list<Rule>  $rules
     * @return list<string> what it comes to, line by line
     */
    private function outline(Rule $own, array $script, array $facts, array $rules): array
    {
        $schema = $this->schemas->schema();
        $type = $schema->types[$own->on];
        $known = new ProofFacts($this->schemas, $this->clock->now());
        $reader = new ScriptReader($schema, $known);
        try {
            $records = [];
            foreach ($facts as $fact) {
                $factType = $schema->type((string) $fact['type']);
                if ($factType !== null) {
                    $values = new Node(array_intersect_key($fact['values'], $factType->fields), '/facts');
                    $records[] = $reader->record($values, $factType, (int) $fact['id'], (int) $fact['version']);
                }
            }
            $values = new Node(array_intersect_key($script['record']['values'], $type->fields), '/record/values');
            $record = $reader->record($values, $type, (int) $script['record']['id'], (int) ($script['record']['version'] ?? 1));
            $whatIfs = $reader->whatIfs($script['whatIfs'] ?? [], $type);
            $actor = is_int($script['actor'] ?? null) ? $script['actor'] : null;
            $played = (new Rehearsal($schema, $this->company->zone()))->play(
                new Script($record, $reader->opening($script['opening'], $type), $whatIfs, $actor),
                $own, ($script['others'] ?? false) === true ? $rules : [$own], $known->keep([...$records, $record]),
            );
        } catch (InvalidScript $invalid) {
            return ["It can no longer be played: {$invalid->getMessage()}"];
        }

        return $this->outlined()->of($played);
    }

    private function outlined(): Outline
    {
        $names = new PeopleStore($this->schemas);
        $display = new Display($names, $this->company->zone());

        return new Outline(new EntryWords($this->schemas->schema(), $names, $display), $display);
    }

    /** @return array{?Rule, list<Rule>} a rule and all in force with it */
    private function standing(int $ruleId): array
    {
        $own = $this->current($ruleId);

        return [$own, $own === null ? [] : $this->rules->with($own)];
    }

    /** The rule as it is in force, or as it is being written when it never was. */
    private function current(int $ruleId): ?Rule
    {
        $row = StoredRule::query()->with('currentPage')->find($ruleId);
        $file = $row?->currentPage->file ?? $row?->draft;

        return $row === null || $file === null ? null : $this->reader->read($file, $ruleId, (int) $row->page, $row->either_or)->rule;
    }

    /** Changes whenever a rule, its state or order, or anything that rules only name changes. */
    private function stand(): string
    {
        $kept = CompanySettings::query()->whereKey(CompanySettings::ID)->value('kept_version');
        $rules = StoredRule::rows()->orderBy('id')->get(['id', 'page', 'status', 'position', 'either_or', 'draft_version']);

        return mb_substr("{$kept}-".sha1((string) json_encode($rules)), 0, self::STAND_LENGTH);
    }

    /** @return array<string, mixed> */
    private static function written(Record $record): array
    {
        return ['type' => $record->type, 'id' => $record->id, 'version' => $record->version, 'values' => (object) $record->values];
    }
}
