<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Models\Outbound\MessageAccount;
use App\Models\Outbound\StoredMessage;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\People\PeopleStore;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Message\Channel;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** Reads messages, with the names of all they mention. */
final readonly class Messages
{
    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $names,
        private AccessScope $inSight,
        private SeenTexts $texts,
    ) {
    }

    /** @return list<MessageResource> those of a record's account, its contacts' included, the newest first */
    public function ofRecord(string $type, int $id, int $limit = 50): array
    {
        $others = MessageAccount::query()->where('record_type', $type)->where('record_id', $id)->select('message_id');

        // What another record has sent here is read by whoever sees that one.
        return $this->read($this->inSight->about(StoredMessage::query())->where(static fn (Builder $either): Builder => $either
            ->where(static fn (Builder $own): Builder => $own->where('record_type', $type)->where('record_id', $id))
            ->orWhereIn('id', $others)), $limit);
    }

    /** @return list<MessageResource> notes in the application for a person */
    public function notes(int $person, int $limit): array
    {
        return $this->read(StoredMessage::query()->where('person_id', $person)->where('channel', Channel::App), $limit);
    }

    /**
     * @param  ?string  $status  null for all
     * @param  ?int  $before  only those with a lower id, the highest first
     * @param  ?int  $after  only those with a higher id, the lowest first
     * @return list<MessageResource>
     */
    public function inStatus(?string $status, ?int $before, ?int $after, int $limit): array
    {
        return $this->read($this->inSight->about(StoredMessage::query())
            ->when($status !== null, static fn (Builder $messages): Builder => $messages->where('status', $status))
            ->when($before !== null, static fn (Builder $messages): Builder => $messages->where('id', '<', $before))
            ->when($after !== null, static fn (Builder $messages): Builder => $messages->where('id', '>', $after)), $limit,
            $after !== null);
    }

    public function one(int $id): ?MessageResource
    {
        return $this->read(StoredMessage::query()->whereKey($id)->where(fn (Builder $either): Builder => $this->inSight->isEverything()
            ? $either : $either->where('person_id', $this->inSight->sight()->person)->orWhere($this->inSight->about(...))), 1)[0] ?? null;
    }

    /**
     * @param  Builder<StoredMessage>  $messages
     * @return list<MessageResource>
     */
    private function read(Builder $messages, int $limit, bool $oldestFirst = false): array
    {
        $rows = $messages->with('rule')->orderBy('id', $oldestFirst ? 'asc' : 'desc')->limit($limit)->get();
        foreach ($rows->groupBy('record_type') as $type => $of) {
            $this->names->rememberTitles($type, array_values($of->pluck('record_id')->all()));
        }
        $this->texts->remember($rows->map(static fn (StoredMessage $message): array => $message->showsAndReaches())->all());

        return array_values($rows->map($this->resource(...))->all());
    }

    private function resource(StoredMessage $message): MessageResource
    {
        ['to' => $to, 'cc' => $cc, 'replyTo' => $replyTo] = $message->recipients;
        // A list is about many records, and stands on none.
        $number = $message->record_id === 0 ? '' : ($this->schemas->schema()->type($message->record_type)?->numberOf($message->record_id)
            ?? '');

        return new MessageResource(
            id: $message->id, channel: $message->channel->value, status: $message->status->value, recordType: $message->record_type,
            recordId: $message->record_id, recordNumber: $number,
            recordTitle: $this->names->title($message->record_type, $message->record_id) ?? $number, rule: $message->rule_id,
            ruleName: $message->rule?->name, entry: $message->entry_id, to: array_map($this->named(...), $to),
            cc: array_map($this->named(...), $cc), replyTo: $replyTo === null ? null : $this->named($replyTo),
            subject: $this->texts->shown($message->subject, $message->tells),
            html: $this->texts->may($message->tells) ? $message->html : '', text: $this->texts->shown($message->text, $message->tells),
            createdAt: Value::instantText($message->created_at),
            doneAt: $message->done_at === null ? null : Value::instantText($message->done_at), tries: $message->tries,
            trouble: $message->trouble,
        );
    }

    /** @param  array{name: string, address: string, record?: array{string, int}}  $one */
    private function named(array $one): string
    {
        return match (true) {
            ! $this->texts->may(StoredMessage::recordOf($one)) => Words::say('somebody who is hidden from you'),
            $one['address'] === '' || $one['address'] === $one['name'] => $one['name'],
            default => "{$one['name']} <{$one['address']}>",
        };
    }
}
