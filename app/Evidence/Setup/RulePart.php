<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Evidence\Rehearsal\ProofFile;
use App\Evidence\Rehearsal\Proofs;
use App\Models\Records\StoredRecord;
use App\Models\Rules\Proof;
use App\Models\Rules\PublishedPage;
use App\Models\Rules\StoredRule;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Rules\RuleDoor;
use App\Store\Rules\RuleFile;
use App\Store\Rules\RuleOrder;
use App\Store\Rules\RuleSchema;
use App\Store\Rules\RuleStore;
use App\Work\Rules\RulePublisher;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\Schema;
use VividLedger\Rehearse\LineDifference;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\RuleStatus;
use VividLedger\Words\Words;

/** Rules with their proofs, as they are in force, paused, or drafts that never were. */
final class RulePart implements SetupPart
{
    public function __construct(
        private readonly RuleStore $rules,
        private readonly RulePublisher $publisher,
        private readonly RuleReader $reader,
        private readonly RuleDoor $door,
        private readonly Proofs $proofs,
        private readonly ProofFile $proofFile,
        private readonly RuleFile $files,
        private readonly RuleOrder $order,
    ) {
    }

    public static function folder(): string
    {
        return 'rules';
    }

    public static function isInOrder(): bool
    {
        return true;
    }

    public static function schema(): array
    {
        return ['required' => ['rule', 'status'], 'properties' => [
            'rule' => ['$ref' => basename(RuleSchema::PATH)], 'status' => ['enum' => ['draft', 'in_force', 'paused']],
            'eitherOr' => ['type' => 'string', 'maxLength' => 80],
            // Of several that are called the same, in their order.
            'which' => ['type' => 'integer', 'minimum' => 2, 'maximum' => 500],
        ]];
    }

    public static function key(array $document): string
    {
        $rule = (array) $document['rule'];

        return "{$rule['on']}: {$rule['name']}".(isset($document['which']) ? " ({$document['which']})" : '');
    }

    public function documents(): array
    {
        [$documents, $named] = [[], []];
        foreach (self::rules()->get()->filter($this->isFinished(...)) as $rule) {
            $document = $this->document($rule);
            $key = self::key($document);
            $which = $named[$key] = ($named[$key] ?? 0) + 1;
            $documents[] = $document + ($which === 1 ? [] : ['which' => $which]);
        }

        return $documents;
    }

    /** @return Builder<StoredRule> those there are, in their order */
    private static function rules(): Builder
    {
        return StoredRule::query()->where('status', '<>', RuleStatus::Retired)->orderBy('position')->orderBy('id');
    }

    public function difference(?array $here, array $there): array
    {
        [$here, $there] = [$here === null ? null : self::asArrays($here), self::asArrays($there)];
        $said = [];
        if ($here !== null) {
            foreach (LineDifference::between($this->sentences($here), $this->sentences($there)) as [$line, $mark]) {
                if ($mark !== 'same') {
                    $said[] = ($mark === 'new' ? Words::say('New: ') : Words::say('Gone: ')).trim($line);
                }
            }
            $proofs = static fn (array $document): array => array_map(
                static fn (array $proof): array => array_intersect_key($proof, ['name' => 0, 'expected' => 0]),
                $document['rule']['proofs'] ?? [],
            );
            if (! NamedPart::same($proofs($here), $proofs($there))) {
                $said[] = Words::say('Its proofs differ.');
            }
        } else {
            $said = $this->sentences($there);
        }
        if (($here['status'] ?? 'draft') !== $there['status']) {
            $said[] = Words::say('It is then {from}.', from: Words::within(RuleStatus::from($there['status'])->label()));
        }
        if (($here['eitherOr'] ?? '') !== ($there['eitherOr'] ?? '')) {
            $said[] = ($there['eitherOr'] ?? '') === '' ? Words::say('It stands in no either/or set.')
                : Words::say('It stands in the either/or set “{eitherOr}”.', eitherOr: $there['eitherOr']);
        }

        return $said;
    }

    public function bring(array $document, Bringing $how): void
    {
        $document = self::asArrays($document);
        $file = $this->files->plain($document['rule']);
        $travelled = $file['proofs'] ?? [];
        unset($file['proofs']);
        $stored = self::rules()->where('record_type', $file['on'])->where('name', $file['name'])->lockForUpdate()->get()
            ->filter($this->isFinished(...))->values()->get(((int) ($document['which'] ?? 1)) - 1);
        $here = $stored === null ? null : self::asArrays($this->document($stored));
        if ($here !== null && NamedPart::same($here, array_diff_key($document, ['which' => true]))) {
            return;
        }
        $id = $stored->id ?? $this->rules->draft($file, $how->by);
        $page = $this->door->read($file, $id, 1 + (int) $stored?->page);
        if ($page->rule === null) {
            throw new DomainError('unfinished_rule', Words::say(
                'The rule “{name}” does not read here.',
                name: $file['name'],
            ), RefusedFor::Invalid, array_map(
                static fn (array $problem): array => ['at' => "/rule{$problem['at']}"] + $problem,
                RuleStore::listed($page->problems),
            ));
        }
        $isSame = $here !== null && NamedPart::same(array_diff_key($this->files->plain($here['rule']), ['proofs' => 0]), $file);
        if ($stored !== null && ! $isSame) {
            if ($stored->draft !== null && ! NamedPart::same($stored->draft, $file)) {
                throw new DomainError('being_written',
                    Words::say(
                        '“{stored}” is being written by {drafter}. Publish that, or throw it away, before another wording is brought in.',
                        stored: $stored->name,
                        drafter: (string) $stored->drafter?->name,
                    ), RefusedFor::Conflict);
            }
            $this->rules->write($id, $stored->draft_version, $file, $how->by);
        }
        Proof::query()->where('rule_id', $id)->delete();
        $this->proofFile->read($travelled, $id, $page->rule, $how->by);
        // Of a type that is only to be there are no records yet, which a proof may ask for.
        if (! $how->despite && Schema::hasTable(StoredRecord::tableOf($page->rule->on))) {
            $this->mustHold($page->rule->id, $this->proofs->tried($page->rule));
        }
        $this->order->stand($id, (string) ($document['eitherOr'] ?? ''), $how->by);
        if ($how->isReal) {
            $this->put(RuleStore::locked($id), RuleStatus::from($document['status']), $how->by);
        }
    }

    /** A draft that wants mending is nobody else's business. */
    private function isFinished(StoredRule $rule): bool
    {
        return $rule->page !== null || $this->door->read($rule->draft ?? [], $rule->id)->rule !== null;
    }

    /** @param  list<array{rule: int, name: string, expected: list<string>, actual: list<string>}>  $tried */
    private function mustHold(int $rule, array $tried): void
    {
        $broken = array_values(array_filter($tried, static fn (array $one): bool => $one['expected'] !== $one['actual']));
        if ($broken !== []) {
            throw new DomainError('proof_broken', Words::say('A proof does not hold here.'), RefusedFor::Conflict,
                array_map(static fn (array $one): array => [
                    'at' => '/rule/proofs', 'code' => 'proof_broken',
                    'message' => ($one['rule'] === $rule ? Words::say('The proof “{name}” does not hold here: ', name: $one['name'])
                        : Words::say(
                            'With it a proof of another rule does not hold any more, “{name}”: ',
                            name: $one['name'],
                        )).self::turn($one['expected'],
                            $one['actual']),
                ], $broken));
        }
    }

    /**
     * Where two outlines part.
     *
     * @param  list<string>  $expected
     * @param  list<string>  $actual
     */
    private static function turn(array $expected, array $actual): string
    {
        $lines = LineDifference::between($expected, $actual);
        $first = static fn (string $mark): string => array_values(array_filter(
            $lines,
            static fn (array $line): bool => $line[1] === $mark,
        ))[0][0] ?? 'nothing';

        return Words::say(
            '“{expected}” is expected, and it comes to “{comes}”.',
            expected: trim($first('gone')),
            comes: trim($first('new')),
        );
    }

    private function put(StoredRule $rule, RuleStatus $to, int $by): void
    {
        if ($to === RuleStatus::Draft) {
            return;
        }
        if ($rule->draft !== null) {
            $this->publisher->publish($rule->id, $rule->draft_version, $by, why: 'Brought in with a setup');
        } elseif ($to === RuleStatus::InForce && $rule->status !== RuleStatus::InForce) {
            $this->publisher->move($rule->id, RuleStatus::InForce, $by);
        }
        $now = RuleStore::locked($rule->id);
        if ($to === RuleStatus::Paused && $now->status === RuleStatus::InForce) {
            $this->publisher->move($rule->id, RuleStatus::Paused, $by);
        }
    }

    /** @return array<string, mixed> */
    private function document(StoredRule $rule): array
    {
        $file = $rule->page === null ? ($rule->draft ?? []) : PublishedPage::fileOf($rule->id, $rule->page);
        $proofs = $this->proofFile->write($rule->id, $rule->record_type);

        return array_filter([
            'rule' => json_decode($this->files->write($file + ($proofs === [] ? [] : ['proofs' => $proofs]))),
            'status' => $rule->status->value, 'eitherOr' => $rule->either_or,
        ], static fn (mixed $member): bool => $member !== '');
    }

    /**
     * Objects that are empty have to stay objects in a file; to compare and to read, all of it is arrays.
     *
     * @param  array<string, mixed>  $document
     * @return array<string, mixed>
     */
    private static function asArrays(array $document): array
    {
        return (array) json_decode((string) json_encode($document), true);
    }

    /**
     * @param  array<string, mixed>  $document
     * @return list<string>
     */
    private function sentences(array $document): array
    {
        return $this->reader->read(array_diff_key($this->files->plain($document['rule']), ['proofs' => true]))->sentences();
    }
}
