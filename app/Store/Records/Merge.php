<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Columns;
use App\Models\Import\RowResult;
use App\Models\Ledger\Entry;
use App\Models\Outbound\MessageAccount;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\Attachment;
use App\Models\Records\Comment;
use App\Models\Records\Follower;
use App\Models\Records\Mention;
use App\Models\Records\MergedRecord;
use App\Models\Records\StoredRecord;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\LedgerConnection;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use App\Store\Sql\Lock;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/**
 * Two records that are one: what names the one that goes names the other from now on, its comments, files, letters, followers and open
 * tasks move, and it goes to the bin. Whoever answers one of its letters answers the kept one, whose account tells of both. All of it, or
 * nothing. No rule answers but to the values that the kept one is given.
 */
final readonly class Merge
{
    /** So many records may name the one that goes. */
    public const MOST = 2000;

    private const PIECE = 200;

    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private SaveMany $many,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  int  $version  of the kept one, as the person saw it
     * @param  int  $otherVersion  of the one that goes
     * @param  array<array-key, mixed>  $values  raw values that the kept one takes over
     *
     * @throws DomainError
     */
    public function into(RecordType $type, int $kept, int $version, int $other, int $otherVersion, array $values, Actor $actor): Saved
    {
        if ($kept === $other) {
            throw DomainError::at('/other', Words::say('It is the same record.'));
        }

        return $this->db->transaction(function () use ($type, $kept, $version, $other, $otherVersion, $values, $actor): Saved {
            $gone = RecordSql::record($type, $other, Lock::WRITE) ?? throw DomainError::noRecord($type, $other);
            if ($gone->version !== $otherVersion) {
                $message = Words::say('{number} has changed meanwhile. Look at it again.', number: $type->numberOf($other));
                throw new DomainError('stale_version', $message, RefusedFor::Conflict);
            }
            $title = $gone->value($type->title);
            $named = $this->rename($type, $kept, $other, $actor);
            $this->move($type->name, $kept, $other);
            $this->save->unmake($type, $other, $actor);
            $saved = $this->save->change($type, $kept, $version, $values, $actor);
            Batch::insert(Entry::class, [Entry::row('merged', $this->clock->now(), [
                'number' => $type->numberOf($other), 'title' => is_string($title) ? $title : '', 'records' => $named,
            ], [
                'actor_id' => $actor->personId, 'via' => $actor->via, 'record_type' => $type->name, 'record_id' => $kept,
                'version' => $saved->record->version, 'cause_id' => $saved->entryId,
            ])]);

            return $saved;
        });
    }

    /** @return int how many records name the kept one now that named the other */
    private function rename(RecordType $type, int $kept, int $other, Actor $actor): int
    {
        $count = 0;
        foreach ($this->schemas->schema()->types as $from) {
            foreach ($from->fields as $field) {
                if ($field->type === FieldType::Reference && $field->target === $type->name && ! $field->system) {
                    $count += $this->renameIn($from, $field, $type, $kept, $other, $actor);
                }
            }
        }

        return $count;
    }

    private function renameIn(RecordType $from, Field $field, RecordType $type, int $kept, int $other, Actor $actor): int
    {
        $ids = Columns::ints(StoredRecord::rowsOf($from)->where($field->name, $other)->limit(self::MOST + 1)->pluck('id'));
        $ids = $from->name === $type->name ? array_values(array_diff($ids, [$other])) : $ids;
        if (count($ids) > self::MOST) {
            throw new DomainError(
                'too_many',
                Words::say(
                    'More than {most} {from} name {number}. Change them first, all together in their list.',
                    most: self::MOST,
                    from: $from->plural,
                    number: $type->numberOf($other),
                ),
                RefusedFor::Conflict,
            );
        }
        foreach (array_chunk($ids, self::PIECE) as $piece) {
            foreach ($this->many->change($from, $piece, [$field->name => $kept], $actor, isAnswered: false) as $row) {
                if ($row->result === RowResult::Refused) {
                    throw new DomainError('refused', $row->said, RefusedFor::Conflict);
                }
            }
        }

        return count($ids);
    }

    private function move(string $type, int $kept, int $other): void
    {
        $to = ['record_id' => $kept];
        foreach ([Comment::class, Attachment::class, Mention::class, StoredMessage::class] as $rows) {
            $rows::rows()->where('record_type', $type)->where('record_id', $other)->update($to);
        }
        $accounts = MessageAccount::rows()->where('record_type', $type)->where('record_id', $other);
        MessageAccount::rows()->insertOrIgnore(array_map(
            static fn (int $message): array => ['message_id' => $message, 'record_type' => $type] + $to,
            Columns::ints((clone $accounts)->pluck('message_id')),
        ));
        $accounts->delete();
        MergedRecord::rows()->updateOrInsert(['record_type' => $type, 'record_id' => $other], ['into_id' => $kept]);
        $people = Columns::ints(Follower::rows()->where('record_type', $type)->where('record_id', $other)->pluck('person_id'));
        foreach ($people as $person) {
            Follower::set($type, $kept, $person, true);
            Follower::set($type, $other, $person, false);
        }
        $tasks = Columns::ints(Task::query()->about($type, $other)->where('status', TaskStatus::Open)->pluck('id'));
        ScheduledLine::rows()->whereIn('task_id', $tasks)->whereIn('status', LineStatus::TO_COME)->update($to);
        // By what line they lapse is read of the record they were given on.
        Task::rows()->whereIn('id', $tasks)->update($to + ['page' => null, 'place' => null]);
        Task::rows()->where('about_type', $type)->where('about_id', $other)->where('status', TaskStatus::Open)
            ->update(['about_id' => $kept]);
    }
}
