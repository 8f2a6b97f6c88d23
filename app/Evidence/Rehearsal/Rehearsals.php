<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Evidence\Rules\RulesInForce;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Outbound\DigestBuilder;
use App\Store\Records\PaperFacts;
use App\Store\RefusedFor;
use App\Store\Rules\CachingRuleBook;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\Facts;
use VividLedger\Record\Record;
use VividLedger\Rehearse\Beside;
use VividLedger\Rehearse\InvalidScript;
use VividLedger\Rehearse\Proposer;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rehearse\ScriptReader;
use VividLedger\Rule\Line\SentTogether;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Gathers;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/**
 * Plays rehearsals as they are asked for: finds the record, proposes what happens first, and plays it with and without what is supposed.
 */
final readonly class Rehearsals
{
    public function __construct(
        private SchemaStore $schemas,
        private StoredRuleBook $pages,
        private DigestBuilder $gathering,
        private RulesInForce $rules,
        private Candidates $candidates,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    /**
     * @param  array<string, mixed>  $asked  "record" {"id"}, {"pick"} or {"values"}, "opening", "whatIfs", "others"
     *
     * @throws DomainError when it cannot be played as it is asked for
     */
    public function play(Rule $rule, array $asked, ?int $actor, ?Facts $facts = null): Rehearsed
    {
        $schema = $this->schemas->schema();
        $type = $schema->types[$rule->on];
        $facts ??= $this->facts();
        $proposer = new Proposer($schema, $this->company->zone());
        $reader = new ScriptReader($schema, $facts);
        try {
            [$record, $pick] = $this->record(new Node($asked['record'] ?? [], '/record'), $rule, $type, $proposer, $reader, $facts);
            $opening = is_array($asked['opening'] ?? null) ? $reader->opening($asked['opening'], $type) : $proposer->opening(
                $rule,
                $record,
                $facts,
                $this->clock->now(),
            );
            $whatIfs = $reader->whatIfs(is_array($asked['whatIfs'] ?? null) ? $asked['whatIfs'] : [], $type);
        } catch (InvalidScript $invalid) {
            throw new DomainError(
                'invalid_script',
                $invalid->getMessage(),
                RefusedFor::Invalid,
                [['at' => $invalid->at, 'code' => 'invalid_script', 'message' => $invalid->getMessage()]],
            );
        }
        $withOthers = ($asked['others'] ?? true) === true;
        $rules = $withOthers ? $this->rules->with($rule) : [$rule];
        $script = new Script($record, $opening, $whatIfs, $actor);
        $rehearsal = new Rehearsal($schema, $this->company->zone());
        $pages = $withOthers && $pick !== 'made_up' ? new CachingRuleBook($this->pages) : null;
        $beside = $rule->trigger instanceof Gathers && $rule->trigger->per() !== null ? $this->beside($rule, $opening->at) : null;
        $played = $rehearsal->play($script, $rule, $rules, $facts, $pages, null, $beside);

        return new Rehearsed(
            $script,
            $played,
            $whatIfs === [] ? null : $rehearsal->play(
                $script->withoutWhatIfs(),
                $rule,
                $rules,
                $this->facts(),
                $pages,
                $played->until,
                $beside,
            ),
            $pick,
            $withOthers,
        );
    }

    /** What may stand on the lists of a rule beside the rehearsed record. */
    private function beside(Rule $rule, \DateTimeImmutable $at): Beside
    {
        /** @var array<int, list<list<Record>>> $records sections come in order */
        $records = [];
        $wantsTasks = false;
        foreach ($rule->lines as $placed) {
            if ($placed->line instanceof SentTogether) {
                $wantsTasks = $wantsTasks || $placed->line->wantsTasks();
                foreach ($placed->line->sections() as $index => $section) {
                    $matching = $this->gathering->matching(
                        $index === 0 ? $rule->on : $section->type->name,
                        $index === 0 ? $rule->condition : $section->where,
                        $at,
                        $this->company->zone(),
                    );
                    $records[$placed->place][$index] = iterator_to_array($matching, false);
                }
            }
        }

        return new Beside($records, $wantsTasks ? $this->gathering->tasks() : []);
    }

    public function facts(): PaperFacts
    {
        return new PaperFacts($this->schemas, $this->clock->now(), $this->company->zone());
    }

    /** @return array{Record, string} the record, and how it was found */
    private function record(Node $node, Rule $rule, RecordType $type, Proposer $proposer, ScriptReader $reader, Facts $facts): array
    {
        if (is_int($node->child('id')->raw)) {
            $id = $node->child('id')->raw;

            return [
                RecordSql::record($type, $id) ?? throw DomainError::missing(Words::say('There is no {record} {id}.',
                    record: Words::within($type->label), id: $id)), 'chosen',
            ];
        }
        $madeUpId = $facts->freshId($type->name);
        if (is_array($node->child('values')->raw)) {
            return [$reader->record($node->child('values'), $type, $madeUpId, 1), 'made_up'];
        }
        $pick = $node->child('pick')->text() ?? '';
        $found = match ($pick) {
            'nearly' => $this->candidates->nearly($type, $rule),
            'made_up' => null,
            default => $this->candidates->matched($type, $rule),
        };
        if ($found !== null) {
            return [$found, $pick === '' ? 'matched' : $pick];
        }
        if ($pick === '' && ($nearly = $this->candidates->nearly($type, $rule)) !== null) {
            return [$nearly, 'nearly'];
        }
        if ($pick === 'matched' || $pick === 'nearly') {
            throw new DomainError(
                'no_record',
                $pick === 'matched' ? Words::say('No {record} meets the conditions now. Make one up.', record: Words::within($type->label))
                    : Words::say('No {record} meets all conditions but one. Make one up.', record: Words::within($type->label)),
                RefusedFor::Missing,
            );
        }

        return [$proposer->madeUp($rule, $this->ground($rule, $facts), $facts), 'made_up'];
    }

    /** A record to make one up from: like the last one that matched, so that what it refers to fits as well, under a number of its own. */
    public function ground(Rule $rule, Facts $facts): Record
    {
        $type = $this->schemas->schema()->types[$rule->on];
        $empty = array_map(static fn (Field $field): ?bool => $field->type === FieldType::Tick ? false : null, $type->fields);

        return new Record(
            $type->name,
            $facts->freshId($type->name),
            1,
            array_replace(
                ($this->candidates->matched($type, $rule) ?? $this->candidates->any($type))->values ?? $empty,
                [$type->title => 'Made up'],
            ),
        );
    }
}
