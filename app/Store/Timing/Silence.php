<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\FieldChange;
use VividLedger\Facts\Quiet;

/** How long one record has been silent in the sense of a trigger; for many records at once there is QuietRecords. */
final class Silence
{
    /** @return ?\DateTimeImmutable when what the silence is counted from happened; null when nothing did, or it has been answered */
    public static function since(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        $at = self::last($quiet, $type, $id)?->at;

        return $at === null ? null : Columns::instant($at);
    }

    /** @return ?int what names that silence, as QuietRecords names it */
    public static function mark(Quiet $quiet, string $type, int $id): ?int
    {
        $row = self::last($quiet, $type, $id);

        return $row?->at === null ? null : (int) $row->id;
    }

    private static function last(Quiet $quiet, string $type, int $id): ?\stdClass
    {
        if ($quiet->sort === Quiet::REPLY) {
            $messages = StoredMessage::query()->about($type, $id)->latest('id')->toBase();
            StoredMessage::thatMayBeAnswered($messages, 'messages');
            $message = $messages->first(['id', 'created_at as at', 'entry_id']);
            $isAnswered = $message !== null && Entry::query()->about($type, $id)->where('kind', 'reply')
                ->where('id', '>', $message->entry_id)->exists();

            return $isAnswered ? null : $message;
        }
        if ($quiet->sort === Quiet::VALUE) {
            $change = FieldChange::query()->about($type, $id)->where('field', $quiet->field->name ?? '')->with('entry')
                ->latest('entry_id')->latest('id')->first();

            return $change === null ? null : (object) [
                'id' => $change->id, 'at' => $change->after === $quiet->value ? Columns::moment($change->entry->at) : null,
            ];
        }

        return Entry::query()->about($type, $id)->whereIn(
            'kind',
            $quiet->brokenBy(),
        )->latest('id')->toBase()->first(['id', 'at']);
    }
}
