<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use Illuminate\Database\Eloquent\Builder;

/** Which entries of the ledger somebody wants to see. */
final readonly class LedgerAsked
{
    private const KINDS = [
        'edits' => ['created', 'changed', 'deleted', 'restored', 'merged', 'comment', 'file', 'reply', 'by_hand', 'hook_brought'],
        'rules' => [
            'fired', 'stopped', 'refused', 'ready_again', 'line', 'struck', 'retimed', 'postponed', 'too_late', 'line_failed', 'held',
            'resumed', 'gathered', 'reversed', 'unsure', 'cut_off',
        ],
        'tasks' => ['task_done', 'task_given', 'task_reopened', 'task_due', 'task_changed', 'task_lapsed'],
        'administration' => [
            'rule_in_force', 'rule_paused', 'rule_retired', 'rules_ordered', 'rule_in_set', 'company_opened', 'setup_applied',
            'person_invited',
            'person_joined', 'person_left', 'named_left',
            'person_changed', 'goes_away', 'comes_back', 'signed_in', 'signed_out', 'password_reset', 'password_changed',
            'second_factor_on', 'second_factor_off', 'token_made', 'token_ended', 'role_added', 'role_changed', 'role_removed',
            'exported', 'type_added', 'type_changed',
            'field_added', 'field_changed', 'field_retired', 'field_back',
        ],
    ];

    /** By what came of it. */
    public const OUTCOMES = [
        'done' => ['fired', 'line', 'gathered', 'task_done', 'signed_off'],
        'left_out' => ['struck', 'too_late', 'task_lapsed', 'cut_off'],
        'put_off' => ['retimed', 'postponed', 'held', 'held_back', 'waits_for_release'],
        'failed' => ['line_failed', 'refused', 'stopped', 'unsure', 'bounced', 'mail_stopped', 'locked_out'],
    ];

    /**
     * @param  ?string  $show  a sort of entries; null for all
     * @param  ?array{string, int}  $record  type and id
     * @param  ?\DateTimeImmutable  $until  before this
     * @param  ?string  $outcome  what came of it; null for whatever
     */
    public function __construct(
        public ?string $show = null,
        public ?int $rule = null,
        public ?int $person = null,
        public ?array $record = null,
        public ?\DateTimeImmutable $from = null,
        public ?\DateTimeImmutable $until = null,
        public ?string $outcome = null,
    ) {
    }

    /**
     * @param  Builder<Entry>  $entries
     * @return Builder<Entry>
     */
    public function narrow(Builder $entries): Builder
    {
        return $entries
            ->when($this->show !== null, fn (Builder $some): Builder => $some->whereIn('kind', self::KINDS[$this->show] ?? []))
            ->when($this->outcome !== null, fn (Builder $some): Builder => $some->whereIn('kind', self::OUTCOMES[$this->outcome] ?? []))
            ->when($this->rule !== null, fn (Builder $some): Builder => $some->where('rule_id', $this->rule))
            ->when($this->person !== null, fn (Builder $some): Builder => $some->where('actor_id', $this->person))
            ->when($this->record !== null, fn (Builder $some): Builder => $some->where('record_type', $this->record[0] ?? '')
                ->where('record_id', $this->record[1] ?? 0))
            ->when($this->from !== null, fn (Builder $some): Builder => $some->where('at', '>=', Columns::moment($this->from ?? '')))
            ->when($this->until !== null, fn (Builder $some): Builder => $some->where('at', '<', Columns::moment($this->until ?? '')));
    }
}
