<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Models\Columns;
use App\Models\Outbound\MailRoomItem;
use App\Models\Outbound\StoredMessage;
use App\Store\DomainError;
use Illuminate\Database\Query\Builder;
use VividLedger\Words\Words;

/** Reads the shelf of the mail room. */
final class Shelf
{
    private const A_PAGE = 100;

    /**
     * @param  string  $search  words that all have to be found
     * @param  ?int  $before  only letters with a lower id, the newest first
     * @param  ?int  $after  only letters with a higher id, the oldest first
     */
    public function page(string $search, ?int $before, ?int $after): ShelfPage
    {
        $found = MailRoomItem::rows();
        foreach (preg_split('/\s+/u', trim($search), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $found->whereAny(['sender', 'recipients', 'subject', 'text'], 'like', '%'.addcslashes($word, '\\%_').'%');
        }
        $total = $found->count();
        $rows = $found->when($before !== null, static fn (Builder $rows): Builder => $rows->where('id', '<', $before))
            ->when($after !== null, static fn (Builder $rows): Builder => $rows->where('id', '>', $after))
            ->orderBy('id', $after === null ? 'desc' : 'asc')->limit(self::A_PAGE)
            ->select(['id', 'kind', 'at', 'sender', 'recipients', 'subject'])->selectRaw('LEFT(text, 160) AS glimpse')->get();

        return new ShelfPage(array_values($rows->map(static fn (object $row): ShelfLetter => new ShelfLetter(
            id: (int) $row->id, kind: $row->kind, at: (string) Columns::iso($row->at), sender: $row->sender, recipients: $row->recipients,
            subject: $row->subject, glimpse: trim((string) preg_replace('/\s+/u', ' ', $row->glimpse)),
        ))->all()), $total);
    }

    public function letter(int $id): MailRoomItem
    {
        return MailRoomItem::query()->find($id) ?? throw DomainError::missing(Words::say('There is no letter {id} on the shelf.', id: $id));
    }

    /** The message that a letter on the shelf was sent as. */
    public function messageBehind(MailRoomItem $letter): ?StoredMessage
    {
        return StoredMessage::query()->firstWhere('key', explode('@', $letter->message_id)[0]);
    }
}
