<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\FieldChange;
use App\Store\Types\SchemaStore;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Collection;
use VividLedger\Facts\Quiet;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\WaitsForSilence;
use VividLedger\Schema\RecordType;

/** Finds the records on which something of a sort last happened so long ago, by the entries of that time. */
final readonly class QuietRecords implements Finds
{
    private const AHEAD = 5;

    private const CHUNK = 500;

    /** Before anything was recorded. */
    private const LONG_AGO = '1000-01-02T00:00:00Z';

    public function __construct(
        private SchemaStore $schemas,
        private Clocks $clocks,
    ) {
    }

    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$calendar, $zone] = $this->clocks->company();
        [$from, $to] = $trigger->lasting()->bases($after, $until, $zone, $calendar);
        $found = [];
        do {
            $rows = $this->last($type, $trigger->quiet(), Columns::moment($from), Columns::moment($to), $cursor, $chunk);
            foreach ($rows as $row) {
                $cursor = (int) $row->id;
                $moment = $trigger->lasting()->from(new \DateTimeImmutable("{$row->at}Z"), $zone, $calendar);
                if ($moment > $after && $moment <= $until) {
                    $found[$cursor] = [(int) $row->record_id, $trigger->occasion($cursor)];
                }
            }
        } while ($rows->count() === $chunk && count($found) < $chunk);

        return $found;
    }

    public function existing(Rule $rule, \DateTimeImmutable $now, Closure $matching): array
    {
        $quiet = [];
        $cursor = 0;
        $always = new \DateTimeImmutable(self::LONG_AGO);
        do {
            $chunk = $this->between($rule, $always, $now, $cursor, self::CHUNK);
            $occasions = array_column($chunk, 1, 0);
            $cursor = $chunk === [] ? $cursor : max(array_keys($chunk));
            foreach ($matching()->whereIn('t.id', array_keys($occasions))->orderBy('t.id')->pluck('t.id') as $id) {
                $quiet[] = [(int) $id, $occasions[(int) $id]];
            }
        } while (count($chunk) >= self::CHUNK);

        return $quiet;
    }

    public function next(Rule $rule, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$calendar, $zone] = $this->clocks->company();
        $from = $trigger->lasting()->bases($after, $after, $zone, $calendar)[0];
        $cursor = 0;
        do {
            $rows = $this->last($type, $trigger->quiet(), Columns::moment($from), '9999-12-31 23:59:59', $cursor, self::AHEAD);
            foreach ($rows as $row) {
                $cursor = (int) $row->id;
                $moment = $trigger->lasting()->from(new \DateTimeImmutable("{$row->at}Z"), $zone, $calendar);
                if ($moment > $after) {
                    return $moment;
                }
            }
        } while ($rows->count() === self::AHEAD);

        return null;
    }

    /** @return Collection<int, \stdClass> what happened in a time and was the last of its sort on its record */
    private function last(RecordType $type, Quiet $quiet, string $from, string $to, int $cursor, int $chunk): Collection
    {
        $asked = match ($quiet->sort) {
            Quiet::REPLY => self::unanswered(),
            Quiet::VALUE => self::lastValues($quiet),
            default => self::lastOf($quiet->brokenBy()),
        };

        return $asked->where('e.record_type', $type->name)->where('e.id', '>', $cursor)->orderBy('e.id')->limit($chunk)
            ->whereBetween(
                $quiet->sort === Quiet::VALUE ? 'at.at' : ($quiet->sort === Quiet::REPLY ? 'e.created_at' : 'e.at'),
                [$from, $to],
            )->get();
    }

    /** Counted from the last message that went out, unless somebody has answered since. */
    private static function unanswered(): Builder
    {
        return StoredMessage::rows()->from(StoredMessage::tableName(), 'e')->where('e.record_id', '>', 0)
            ->tap(static fn (Builder $messages) => StoredMessage::thatMayBeAnswered($messages, 'e'))
            ->whereNotExists(
                self::later(StoredMessage::tableName())->whereColumn('l.id', '>', 'e.id')
                    ->tap(static fn (Builder $messages) => StoredMessage::thatMayBeAnswered($messages, 'l')),
            )
            ->whereNotExists(self::later(Entry::tableName())->where('l.kind', 'reply')->whereColumn('l.id', '>', 'e.entry_id'))
            ->select(['e.id', 'e.record_id', 'e.created_at as at']);
    }

    /** Counted from the change that made the value what it still is. */
    private static function lastValues(Quiet $quiet): Builder
    {
        return FieldChange::rows()->from(FieldChange::tableName(), 'e')->where('e.field', $quiet->field->name ?? '')
            ->where('e.after', Columns::json($quiet->value))
            ->join(Entry::tableName().' as at', static fn (JoinClause $entry): JoinClause => $entry->on('at.id', '=', 'e.entry_id')
                ->on('at.record_type', '=', 'e.record_type')->on('at.record_id', '=', 'e.record_id'))
            ->whereNotExists(
                self::later(FieldChange::tableName())->whereColumn('l.field', 'e.field')->whereColumn('l.entry_id', '>', 'e.entry_id'),
            )
            ->select(['e.id', 'e.record_id', 'at.at']);
    }

    /** @param  list<string>  $kinds */
    private static function lastOf(array $kinds): Builder
    {
        return Entry::rows()->from(Entry::tableName(), 'e')->whereIn('e.kind', $kinds)
            ->whereNotExists(self::later(Entry::tableName())->whereIn('l.kind', $kinds)->whereColumn('l.id', '>', 'e.id'))
            ->select(['e.id', 'e.record_id', 'e.at']);
    }

    /** Rows of the same record, to be compared with "e". */
    private static function later(string $table): Builder
    {
        return Entry::rows()->from($table, 'l')->whereColumn('l.record_type', 'e.record_type')->whereColumn('l.record_id', 'e.record_id');
    }

    private static function trigger(Rule $rule): WaitsForSilence
    {
        return $rule->trigger instanceof WaitsForSilence ? $rule->trigger : throw new \LogicException('This rule waits for no silence.');
    }
}
