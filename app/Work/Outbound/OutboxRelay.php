<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Models\Ledger\Entry;
use App\Models\Outbound\MessageStatus;
use App\Models\Outbound\StoredMessage;
use App\Store\HouseClock;
use App\Store\Outbound\LetterLinks;
use App\Store\Sql\Batch;
use App\Store\Sql\Lease;
use App\Store\Sql\LeaseHolder;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\Http;
use VividLedger\Message\Channel;
use VividLedger\Record\CauseKind;

/**
 * Delivers what waits in the outbox: mail over SMTP, text messages over HTTP. A message is leased by itself, sent, and then marked;
 * the lease is renewed as long as the other side takes, and only its holder sends or marks anything. One whose sender dies in
 * between is sent once more under the same name, by which whoever takes it can tell.
 */
final class OutboxRelay
{
    private const MOST_TRIES = 8;

    /** So often a letter is sent again that may have arrived already. */
    private const MOST_UNSURE = 2;

    private const TEXT_SECONDS = 30;

    private const LONGEST_TROUBLE = 500;

    private readonly LeaseHolder $holder;

    private ?int $held = null;

    private int $renewedAt = 0;

    private ?Mailer $mailer = null;

    public function __construct(private readonly Connection $db, private readonly HouseClock $clock)
    {
        $this->holder = new LeaseHolder;
    }

    /** @return int how many messages were dealt with; fewer than asked for means that nothing more is due */
    public function work(int $most): int
    {
        for ($done = 0; $done < $most; $done++) {
            $message = $this->lease();
            if ($message === null) {
                break;
            }
            $this->deliver($message);
        }

        return $done;
    }

    /** Tries a message again that had been given up. */
    public function again(int $id): bool
    {
        $isAgain = StoredMessage::query()->whereKey($id)->where('status', MessageStatus::Failed)->update([
            'status' => MessageStatus::Waiting, 'tries' => 0, 'unsure' => 0, 'next_try_at' => gmdate('Y-m-d H:i:s'),
        ] + LeaseHolder::FREE) === 1;
        if ($isAgain) {
            DeliverLetters::dispatch();
        }

        return $isAgain;
    }

    private function deliver(StoredMessage $message): void
    {
        try {
            $message->channel === Channel::Sms ? $this->text($message) : $this->mail($message);
        } catch (LeaseLost) {
            return;
        } catch (\Throwable $trouble) {
            $isUnsure = $message->channel !== Channel::Sms && $this->mailer?->mayHaveArrived() === true;
            $this->failed($message, $trouble->getMessage(), $isUnsure);

            return;
        } finally {
            $this->held = null;
        }
        $this->db->transaction(function () use ($message): void {
            $marked = $this->inHand($message->id)->update([
                'status' => MessageStatus::Delivered, 'tries' => $message->tries + 1, 'trouble' => '', 'done_at' => gmdate('Y-m-d H:i:s'),
            ] + LeaseHolder::FREE);
            if ($marked === 1 && $message->unsure > 0) {
                $this->unsureEntry($message, $message->unsure + 1, true);
            }
        });
    }

    private function lease(): ?StoredMessage
    {
        return $this->db->transaction(function (): ?StoredMessage {
            // By the machine's own time: a house clock that is held or turned does not keep letters back.
            $now = gmdate('Y-m-d H:i:s');
            $message = Lease::first(StoredMessage::query()->where('status', MessageStatus::Waiting)
                ->where(static fn (Builder $due): Builder => $due->where('tries', 0)->orWhere('next_try_at', '<=', $now)));
            if ($message !== null) {
                $message->update($this->holder->lease());
                $this->held = $message->id;
                $this->renewedAt = time();
            }

            return $message;
        });
    }

    /**
     * The message, as long as nobody else has taken it over.
     *
     * @return Builder<StoredMessage>
     */
    private function inHand(int $id): Builder
    {
        return $this->holder->own(StoredMessage::query()->whereKey($id));
    }

    /** Shows that the letter is still in hand; who has lost it to another leaves it alone. */
    private function renew(): void
    {
        if ($this->held === null || time() - $this->renewedAt < Lease::SECONDS / 6) {
            return;
        }
        if ($this->inHand($this->held)->update($this->holder->lease()) !== 1) {
            throw new LeaseLost('Another sender has the letter.');
        }
        $this->renewedAt = time();
    }

    private function mail(StoredMessage $message): void
    {
        $this->mailer ??= new Mailer($this->renew(...));
        $this->mailer->send($message);
    }

    /** One HTTP request for each message; a gateway that knows idempotency keys counts none twice. */
    private function text(StoredMessage $message): void
    {
        $to = $message->recipients['to'][0];
        try {
            $answer = Http::timeout(self::TEXT_SECONDS)->withToken(self::gatewayToken())->withHeaders(['Idempotency-Key' => $message->key])
                ->post((string) config('ledger.sms.url'), [
                    'to' => $to['address'], 'text' => LetterLinks::whole(LetterLinks::filled($message, $message->text)),
                ]);
        } catch (\Illuminate\Http\Client\ConnectionException) {
            throw new \RuntimeException('The gateway for text messages cannot be reached.');
        }
        if (! $answer->successful()) {
            throw new \RuntimeException("The gateway for text messages answered {$answer->status()}.");
        }
    }

    /** What the gateway knows the application by; the stand-in that ships with it, by a secret of this installation. */
    public static function gatewayToken(): string
    {
        $given = (string) config('ledger.sms.token');

        return $given !== '' ? $given : hash_hmac('sha256', 'text messages', (string) config('app.key'));
    }

    private function failed(StoredMessage $message, string $trouble, bool $isUnsure): void
    {
        $tries = $message->tries + 1;
        $unsure = $message->unsure + ($isUnsure ? 1 : 0);
        $over = $tries >= self::MOST_TRIES || $unsure > self::MOST_UNSURE;
        $this->db->transaction(function () use ($message, $trouble, $isUnsure, $tries, $unsure, $over): void {
            // 10 s, 40 s, 90 s … : a short trouble is soon over, and a long one is not hammered at.
            $said = $isUnsure ? "{$trouble} It may have arrived all the same." : $trouble;
            $marked = $this->inHand($message->id)->update([
                'status' => $over ? MessageStatus::Failed : MessageStatus::Waiting, 'tries' => $tries, 'unsure' => $unsure,
                'next_try_at' => gmdate(
                    'Y-m-d H:i:s',
                    time() + 10 * $tries * $tries,
                ), 'trouble' => mb_substr($said, 0, self::LONGEST_TROUBLE),
            ] + LeaseHolder::FREE);
            if ($marked === 1 && ! $over) {
                DeliverLetters::dispatch()->delay(10 * $tries * $tries);
            }
            if ($marked === 1 && $over && $unsure > 0) {
                $this->unsureEntry($message, $unsure, false);
            }
        });
    }

    /** The ledger says of a letter that it may have arrived more than once. */
    private function unsureEntry(StoredMessage $message, int $times, bool $isDelivered): void
    {
        $isAbout = $message->record_id > 0;
        $data = ['message' => $message->id, 'subject' => $message->subject, 'times' => $times, 'delivered' => $isDelivered];
        Batch::insert(Entry::class, [Entry::row('unsure', $this->clock->now(), $data, [
            'via' => CauseKind::Rule, 'record_type' => $isAbout ? $message->record_type : null, 'record_id' => $isAbout
                ? $message->record_id : null,
            'rule_id' => $message->rule_id, 'cause_id' => $message->entry_id,
        ])]);
    }
}
