<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use App\Models\Inbound\Hook;
use App\Models\Inbound\HookArrival;
use App\Models\Inbound\HookOutcome;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use StandardWebhooks\Webhook;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Words\Words;

/**
 * Where other systems post. What arrives is signed and not older than five minutes (Standard Webhooks), and becomes a save like any
 * other, for which rules fire. It is taken once, by the key that its sender gave it; what could not be taken is kept for somebody to mend.
 */
final readonly class WebhookIngest
{
    public const MOST_BYTES = 500_000;

    public const KEY_LENGTH = 190;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private HookReading $reading,
    ) {
    }

    /**
     * @param  array<string, string>  $headers  webhook-id, webhook-timestamp and webhook-signature
     *
     * @throws DomainError when it is not from whom it should be; nothing of it is kept then but that it was so
     */
    public function take(Hook $hook, string $raw, array $headers): HookArrival
    {
        $key = $headers['webhook-id'] ?? '';
        if (! $hook->is_open) {
            throw new DomainError('closed', Words::say('This hook is closed.'), RefusedFor::Conflict);
        }
        $isKey = $key !== '' && strlen($key) <= self::KEY_LENGTH && mb_check_encoding($key, 'UTF-8');
        if (! $isKey || ! self::isSigned($hook, $raw, $headers)) {
            Hook::query()->whereKey($hook->id)->increment('turned_away', 1, ['turned_away_at' => gmdate('Y-m-d H:i:s')]);
            throw new DomainError(
                'not_signed',
                Words::say('The signature or the time is not right (Standard Webhooks).'),
                RefusedFor::NotAllowed,
            );
        }

        return $this->takeIn($hook, $key, $raw);
    }

    /**
     * What could not be taken, once more; mended where it was.
     *
     * @throws DomainError
     */
    public function again(int $id, ?string $raw): HookArrival
    {
        $arrival = HookArrival::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such arrival.'));
        if ($arrival->outcome->isDone()) {
            throw new DomainError('wrong_state', Words::say('It was taken already.'), RefusedFor::Conflict);
        }

        return $this->takeIn(Hook::query()->findOrFail($arrival->hook_id), $arrival->key, $raw ?? $arrival->raw);
    }

    private function takeIn(Hook $hook, string $key, string $raw): HookArrival
    {
        return $this->db->transaction(function () use ($hook, $key, $raw): HookArrival {
            // One at a time: two that arrive together must not make the same record twice.
            Hook::query()->whereKey($hook->id)->lockForUpdate()->first();
            $known = HookArrival::query()->where('hook_id', $hook->id)->where('key', $key)->first();
            if ($known !== null && $known->outcome->isDone()) {
                $known->update(['times' => $known->times + 1]);

                return $known;
            }
            [$outcome, $record, $trouble] = $this->saved($hook, $key, $raw);
            $given = [
                'at' => $this->clock->now(), 'outcome' => $outcome, 'record_type' => $hook->record_type, 'record_id' => $record,
                'trouble' => mb_substr($trouble, 0, 500), 'raw' => mb_scrub($raw), 'times' => ($known->times ?? 0) + 1,
            ];
            if ($known !== null) {
                $known->update($given);

                return $known;
            }

            return HookArrival::query()->create(['hook_id' => $hook->id, 'key' => $key] + $given);
        });
    }

    /** @return array{HookOutcome, ?int, string} what came of it, the record, and what was wrong */
    private function saved(Hook $hook, string $key, string $raw): array
    {
        try {
            // What a rule refuses of it takes the rest along.
            return $this->db->transaction(fn (): array => $this->brought($hook, $key, $raw));
        } catch (DomainError $refused) {
            $problems = array_column($refused->problems, 'message');

            return [HookOutcome::Refused, null, $problems === [] ? $refused->getMessage() : implode(' ', $problems)];
        }
    }

    /** @return array{HookOutcome, int, string} */
    private function brought(Hook $hook, string $key, string $raw): array
    {
        $type = $this->schemas->schema()->type($hook->record_type)
            ?? throw new DomainError('no_type', Words::say('Its record type is gone.'));
        $read = $this->reading->of($hook, $type, $raw);
        $actor = new Actor(null, CauseKind::Hook);
        if ($read->record === null) {
            $id = $this->save->create($type, $read->values, $actor)->record->id;
            $outcome = HookOutcome::Created;
        } else {
            $id = $read->record->id;
            $saved = $this->save->change($type, $id, $read->record->version, $read->values, $actor);
            $outcome = $saved->entryId === null ? HookOutcome::Unchanged : HookOutcome::Changed;
        }
        $event = new Event(EventKind::HookBrought, 'hook:'.substr(sha1("{$hook->id}:{$key}"), 0, 40), from: $hook->name);
        $this->save->recordEvent($type, $id, static fn (): Event => $event, $actor, ['from' => $hook->name]);

        return [$outcome, $id, ''];
    }

    /** @param  array<string, string>  $headers */
    private static function isSigned(Hook $hook, string $raw, array $headers): bool
    {
        try {
            (new Webhook($hook->secret))->verify($raw, $headers);

            return true;
        } catch (\Throwable) {
            // Whatever is wrong with it, it is not signed.
            return false;
        }
    }
}
