<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Columns;
use App\Models\Outbound\NoticeKind;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\Mention;
use App\Models\Tasks\Task;
use App\Store\Access\SeenTexts;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Message\Channel;
use VividLedger\Words\Words;

/** What happened for somebody: notes that rules wrote to them, tasks they were given, comments that name them. */
final class Notices
{
    /** @return int how much of it came after a moment, all of it where there is none; no more than so many are counted */
    public static function since(int $person, ?\DateTimeImmutable $seen, int $most): int
    {
        $from = Columns::moment($seen ?? new \DateTimeImmutable('@0'));
        $rows = [
            StoredMessage::query()->where('channel', Channel::App)->where('person_id', $person)->where('created_at', '>', $from),
            Task::query()->where('assignee_id', $person)->where('given_at', '>', $from),
            Mention::query()->where('person_id', $person)->where('at', '>', $from),
        ];

        return min($most, array_sum(array_map(static fn (Builder $one): int => count($one->limit($most)->pluck('id')->all()), $rows)));
    }

    /**
     * @param  SeenTexts  $texts  which of them they may read
     * @param  ?\DateTimeImmutable  $since  nothing that came before
     * @return list<Notice> the newest first
     */
    public static function of(int $person, SeenTexts $texts, int $most, ?\DateTimeImmutable $since = null): array
    {
        $from = Columns::moment($since ?? new \DateTimeImmutable('@0'));
        $found = [];
        $notes = StoredMessage::query()->where('channel', Channel::App)->where('person_id', $person)->where('created_at', '>=', $from)
            ->latest('id')->limit($most)->get(['id', 'subject', 'created_at', 'record_type', 'record_id', 'tells']);
        $tasks = Task::query()->where('assignee_id', $person)->where('given_at', '>=', $from)->latest('given_at')->limit($most)
            ->get(['id', 'title', 'given_at', 'record_type', 'record_id', 'tells']);
        $texts->remember([...$notes->pluck('tells'), ...$tasks->pluck('tells')]);
        foreach ($notes as $note) {
            $found[] = new Notice(
                kind: NoticeKind::Note, id: $note->id, at: $note->created_at, title: $texts->shown($note->subject, $note->tells),
                recordType: $note->record_type, recordId: $note->record_id,
            );
        }
        foreach ($tasks as $task) {
            $found[] = new Notice(
                kind: NoticeKind::Task, id: $task->id, at: $task->given_at, title: $texts->shown($task->title, $task->tells),
                recordType: $task->record_type, recordId: $task->record_id,
            );
        }
        $mentions = Mention::query()->with('by')->where('person_id', $person)->where('at', '>=', $from)->latest('at')->limit($most)->get();
        foreach ($mentions as $mention) {
            $by = $mention->by->name ?? Words::say('Somebody');
            $found[] = new Notice(
                kind: NoticeKind::Mention, id: $mention->id, at: $mention->at, title: "{$by}: {$mention->text}",
                recordType: $mention->record_type, recordId: $mention->record_id,
            );
        }
        usort($found, static fn (Notice $one, Notice $other): int => $other->at <=> $one->at);

        return array_slice($found, 0, $most);
    }
}
