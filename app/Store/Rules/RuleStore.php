<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Rules\Proof;
use App\Models\Rules\StoredRule;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Rule\RuleStatus;
use VividLedger\Shape\Problem;
use VividLedger\Words\Words;

/** Rules as they are being written. Writing one changes nothing that is in force. */
final readonly class RuleStore
{
    private const UNTITLED = 'Untitled rule';

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  array<mixed>  $file  a rule file, finished or not
     * @return int id of the new rule
     */
    public function draft(array $file, int $by): int
    {
        $type = $this->schemas->schema()->type(is_string($file['on'] ?? null) ? $file['on'] : '');
        if ($type === null) {
            $problem = ['at' => '/on', 'code' => 'unknown_type', 'message' => Words::say('There is no such record type.')];
            throw new DomainError('unknown_type', Words::say('Say which records the rule is about.'), RefusedFor::Invalid, [$problem]);
        }

        return StoredRule::query()->create([
            'record_type' => $type->name, 'name' => $this->name($file), 'status' => RuleStatus::Draft,
            'position' => (int) StoredRule::query()->max('position') + 1, 'draft' => $file, 'draft_at' => $this->clock->now(),
            'draft_by' => $by, 'created_at' => $this->clock->now(),
        ])->id;
    }

    /**
     * @param  int  $version  of the draft as the person saw it
     * @param  array<mixed>  $file
     * @return int the draft's next version
     */
    public function write(int $id, int $version, array $file, int $by): int
    {
        return $this->db->transaction(function () use ($id, $version, $file, $by): int {
            $rule = self::locked($id);
            self::mustBeCurrent($rule, $version);
            if (($file['on'] ?? null) !== $rule->record_type) {
                $problem = ['at' => '/on', 'code' => 'unknown_type', 'message' => Words::say('A rule stays with its record type.')];
                throw new DomainError(
                    'unknown_type',
                    Words::say('A rule stays with its record type. Start a new rule for other records.'),
                    RefusedFor::Invalid,
                    [$problem],
                );
            }
            $rule->update([
                'draft' => $file, 'draft_version' => $version + 1, 'draft_at' => $this->clock->now(), 'draft_by' => $by,
                // A rule that was never in force goes by the name of its draft.
                'name' => $rule->page === null ? $this->name($file) : $rule->name,
            ]);

            return $version + 1;
        });
    }

    /** Throws the draft away; the page stays as it is. A rule without a page goes altogether. */
    public function discard(int $id): void
    {
        $this->db->transaction(static function () use ($id): void {
            $rule = self::locked($id);
            if ($rule->page === null) {
                $rule->delete();
                Proof::query()->where('rule_id', $id)->delete();
            } else {
                $rule->update(StoredRule::WITHOUT_DRAFT + ['draft_version' => $rule->draft_version + 1]);
            }
        });
    }

    /**
     * @param  list<Problem>  $problems
     * @return list<array{at: string, code: string, message: string, position: ?int}>
     */
    public static function listed(array $problems): array
    {
        return array_map(static fn (Problem $problem): array => [
            'at' => $problem->at, 'code' => $problem->code, 'message' => $problem->message, 'position' => $problem->position,
        ], $problems);
    }

    /** @throws DomainError when there is no such rule */
    public static function locked(int $id): StoredRule
    {
        return StoredRule::query()->lockForUpdate()->find($id) ?? throw DomainError::missing(Words::say('There is no rule {id}.', id: $id));
    }

    /** @throws DomainError when somebody has written it after it was opened */
    public static function mustBeCurrent(StoredRule $rule, int $version): void
    {
        if ($rule->draft_version !== $version) {
            $who = $rule->drafter->name ?? Words::say('Somebody');
            $message = Words::say('{who} changed this rule after you opened it. Open it again to see how it reads now.', who: $who);
            throw new DomainError('stale_version', $message, RefusedFor::Conflict, more: ['version' => $rule->draft_version]);
        }
    }

    /** @param  array<mixed>  $file */
    private function name(array $file): string
    {
        $name = is_string($file['name'] ?? null) ? trim($file['name']) : '';

        return $name === '' ? self::UNTITLED : mb_substr($name, 0, StoredRule::NAME_LENGTH);
    }
}
