<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\Columns;
use App\Store\Company;
use App\Store\PeopleStore;
use App\Store\Refused;
use App\Store\SchemaStore;
use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rehearse\Boundaries;
use VividLedger\Rehearse\InvalidScript;
use VividLedger\Rehearse\Outline;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rehearse\ScriptReader;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;

/** Rehearsals kept as tests of a rule: each with its record, the records it looks at, and what is expected. */
final readonly class Proofs
{
    private const LONGEST_TROUBLE = 160;

    private const LONGEST_NAME = 120;

    /** Played at each edit; more would be felt. */
    private const MOST_AT_AN_EDIT = 60;

    public function __construct(
        private Connection $db,
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
            throw new Refused('invalid_name', 'Give the proof a name of at most '.self::LONGEST_NAME.' characters.', 422, [['at' => '/name', 'code' => 'invalid_name', 'message' => 'Say what the proof shows.']]);
        }
        $facts = new SeenFacts($this->db, $this->schemas, $this->clock->now(), $this->company->zone());
        $rehearsed = $this->rehearsals->play($rule, $asked, $by, $facts);
        $script = $rehearsed->script;
        $written = [
            'record' => ['id' => $script->record->id, 'version' => $script->record->version, 'values' => (object) $script->record->values],
            'opening' => ScriptReader::written($script->opening), 'whatIfs' => $asked['whatIfs'] ?? [], 'others' => $rehearsed->withOthers, 'actor' => $by,
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

        return (int) $this->db->table('proofs')->insertGetId([
            'rule_id' => $ruleId, 'name' => $name, 'script' => self::json($script), 'facts' => self::json($facts), 'expected' => self::json($expected),
            'kept_at' => Columns::moment($this->clock->now()), 'kept_by' => $by,
        ]);
    }

    /** @return list<object> rows of a rule's proofs, the oldest first */
    public function of(int $ruleId): array
    {
        return $this->db->select('SELECT p.*, k.name AS keeper, a.name AS accepter FROM proofs p JOIN people k ON k.id = p.kept_by LEFT JOIN people a ON a.id = p.accepted_by WHERE p.rule_id = ? ORDER BY p.id', [$ruleId]);
    }

    /**
     * Plays proofs with a rule as it is being written: its own, and those of other rules.
     *
     * @return list<array{id: int, rule: int, ruleName: string, name: string, expected: list<string>, actual: list<string>}> those of its own, and of others that no longer hold
     */
    public function tried(Rule $rule): array
    {
        $all = $this->rules->with($rule);
        $byId = [];
        foreach ($all as $known) {
            $byId[$known->id] = $known;
        }
        $tried = [];
        foreach ($this->db->select('SELECT * FROM proofs ORDER BY rule_id <> ?, id LIMIT '.self::MOST_AT_AN_EDIT, [$rule->id]) as $row) {
            $own = $byId[(int) $row->rule_id] ?? null;
            if ($own === null) {
                continue;
            }
            [$expected, $actual] = [json_decode($row->expected, true), $this->outline($own, json_decode($row->script, true), json_decode($row->facts, true), $all)];
            if ((int) $row->rule_id === $rule->id || $expected !== $actual) {
                $tried[] = ['id' => (int) $row->id, 'rule' => (int) $row->rule_id, 'ruleName' => $own->name, 'name' => $row->name, 'expected' => $expected, 'actual' => $actual];
            }
        }

        return $tried;
    }

    /** What a proof comes to with a rule is what is expected from now on. */
    public function accept(int $id, ?Rule $edited, int $by): void
    {
        $row = $this->db->selectOne('SELECT * FROM proofs WHERE id = ?', [$id]) ?? throw new Refused('not_found', "There is no proof {$id}.", 404);
        $own = $edited?->id === (int) $row->rule_id ? $edited : $this->current((int) $row->rule_id);
        if ($own === null) {
            throw new Refused('unfinished_rule', 'The rule is not finished, so the proof cannot be played.', 409);
        }
        $actual = $this->outline($own, json_decode($row->script, true), json_decode($row->facts, true), $this->rules->with($edited ?? $own));
        $this->db->update("UPDATE proofs SET expected = ?, actual = NULL, holds = 1, checked_stand = '', accepted_at = ?, accepted_by = ? WHERE id = ?", [self::json($actual), Columns::moment($this->clock->now()), $by, $id]);
    }

    public function drop(int $id): void
    {
        $this->db->delete('DELETE FROM proofs WHERE id = ?', [$id]);
    }

    /** Plays what has not been played since the rules, or anything they name, last changed. */
    public function work(int $most): int
    {
        $stand = $this->stand();
        $rows = $this->db->select("SELECT * FROM proofs WHERE checked_stand <> ? ORDER BY id LIMIT {$most}", [$stand]);
        $read = [];
        foreach ($rows as $row) {
            [$own, $rules] = $read[(int) $row->rule_id] ??= $this->standing((int) $row->rule_id);
            $expected = json_decode($row->expected, true);
            try {
                $actual = $own === null ? $expected : $this->outline(
                    $own,
                    json_decode($row->script, true),
                    json_decode($row->facts, true),
                    $rules,
                );
            } catch (\Throwable $broken) {
                // One that cannot be played says so, and the others are tried all the same.
                report($broken);
                $actual = ['It could not be played: '.mb_strimwidth($broken->getMessage(), 0, self::LONGEST_TROUBLE, '…')];
            }
            $this->db->update('UPDATE proofs SET holds = ?, actual = ?, checked_stand = ? WHERE id = ? AND expected = ?', [$actual === $expected, $actual === $expected ? null : self::json($actual), $stand, $row->id, $row->expected]);
        }

        return count($rows);
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
        foreach ((new Boundaries($this->schemas->schema(), $this->company->zone()))->of($rule, $ground, $facts, $this->clock->now()) as [$name, $script]) {
            $played = (new Rehearsal($this->schemas->schema(), $this->company->zone()))->play(new Script($script->record, $script->opening, [], $by), $rule, [$rule], $this->rehearsals->facts());
            $cases[] = [
                'name' => $name, 'script' => ['record' => ['values' => $script->record->values], 'opening' => json_decode(self::json(ScriptReader::written($script->opening)), true), 'whatIfs' => [], 'others' => false],
                'outline' => $this->outlined()->of($played), 'fires' => $played->why?->reason === \VividLedger\Explain\Reason::Fires,
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
        $known = new ProofFacts($this->db, $this->schemas, $this->clock->now(), $this->company->zone());
        $reader = new ScriptReader($schema, $known);
        try {
            $records = [];
            foreach ($facts as $fact) {
                $factType = $schema->type((string) $fact['type']);
                if ($factType !== null) {
                    $records[] = $reader->record(new Node(array_intersect_key($fact['values'], $factType->fields), '/facts'), $factType, (int) $fact['id'], (int) $fact['version']);
                }
            }
            $record = $reader->record(new Node(array_intersect_key($script['record']['values'], $type->fields), '/record/values'), $type, (int) $script['record']['id'], (int) ($script['record']['version'] ?? 1));
            $played = (new Rehearsal($schema, $this->company->zone()))->play(
                new Script($record, $reader->opening($script['opening'], $type), $reader->whatIfs($script['whatIfs'] ?? [], $type), is_int($script['actor'] ?? null) ? $script['actor'] : null),
                $own, ($script['others'] ?? false) === true ? $rules : [$own], $known->keep([...$records, $record]),
            );
        } catch (InvalidScript $invalid) {
            return ["It can no longer be played: {$invalid->getMessage()}"];
        }

        return $this->outlined()->of($played);
    }

    private function outlined(): Outline
    {
        return new Outline(new Display(new PeopleStore($this->db, $this->schemas), $this->company->zone()));
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
        $row = $this->db->selectOne('SELECT r.*, p.file FROM rules r LEFT JOIN rule_pages p ON p.rule_id = r.id AND p.number = r.page WHERE r.id = ?', [$ruleId]);

        return $row === null ? null : $this->reader->read(json_decode($row->file ?? $row->draft, true, 512, JSON_THROW_ON_ERROR), $ruleId, (int) $row->page, $row->either_or)->rule;
    }

    /** Changes whenever a rule, its state or order, or anything that rules only name changes. */
    private function stand(): string
    {
        $row = $this->db->selectOne("SELECT (SELECT kept_version FROM company WHERE id = 1) AS kept, SHA1(GROUP_CONCAT(CONCAT_WS(':', id, page, status, position, either_or, draft_version) ORDER BY id)) AS rules FROM rules");

        return mb_substr("{$row->kept}-{$row->rules}", 0, 40);
    }

    /** @return array<string, mixed> */
    private static function written(Record $record): array
    {
        return ['type' => $record->type, 'id' => $record->id, 'version' => $record->version, 'values' => (object) $record->values];
    }

    private static function json(mixed $value): string
    {
        return json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }
}
