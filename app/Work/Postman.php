<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Batch;
use App\Store\Columns;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\Http;

/**
 * Delivers what waits in the outbox: mail over SMTP, text messages over HTTP. A message is leased by itself, sent, and then marked;
 * the lease is renewed as long as the other side takes, and only its holder sends or marks anything. One whose sender dies in
 * between is sent once more under the same name, by which whoever takes it can tell.
 */
final class Postman
{
    private const LEASE_SECONDS = 60;

    private const MOST_TRIES = 8;

    /** So often a letter is sent again that may have arrived already. */
    private const MOST_UNSURE = 2;

    private const TEXT_SECONDS = 30;

    private readonly string $name;

    private ?int $inHand = null;

    private int $renewedAt = 0;

    private ?Mailer $mailer = null;

    public function __construct(private readonly Connection $db, private readonly HouseClock $clock)
    {
        $this->name = substr(gethostname().':'.getmypid().':'.bin2hex(random_bytes(4)), -40);
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
        return $this->db->update(
            "UPDATE messages SET status = 'waiting', tries = 0, unsure = 0, next_try_at = ?, leased_until = NULL, leased_by = NULL WHERE id = ? AND status = 'failed'",
            [gmdate('Y-m-d H:i:s'), $id],
        ) === 1;
    }

    private function deliver(object $message): void
    {
        try {
            $message->channel === 'sms' ? $this->text($message) : $this->mail($message);
        } catch (LeaseLost) {
            return;
        } catch (\Throwable $trouble) {
            $this->failed($message, $trouble->getMessage(), $message->channel !== 'sms' && $this->mailer?->mayHaveArrived() === true);

            return;
        } finally {
            $this->inHand = null;
        }
        $this->db->transaction(function () use ($message): void {
            $marked = $this->db->update(
                "UPDATE messages SET status = 'delivered', tries = tries + 1, leased_until = NULL, leased_by = NULL, trouble = '', done_at = ? WHERE id = ? AND leased_by = ?",
                [gmdate('Y-m-d H:i:s'), $message->id, $this->name],
            );
            if ($marked === 1 && (int) $message->unsure > 0) {
                $this->unsureEntry($message, (int) $message->unsure + 1, true);
            }
        });
    }

    private function lease(): ?object
    {
        return $this->db->transaction(function (): ?object {
            // By the machine's own time: a house clock that is held or turned does not keep letters back.
            $now = gmdate('Y-m-d H:i:s');
            $message = $this->db->selectOne(
                "SELECT * FROM messages WHERE status = 'waiting' AND (leased_until IS NULL OR leased_until < ?) AND (tries = 0 OR next_try_at <= ?) ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED",
                [$now, $now],
            );
            if ($message !== null) {
                $this->db->update(
                    'UPDATE messages SET leased_until = ?, leased_by = ? WHERE id = ?',
                    [self::leaseEnd(), $this->name, $message->id],
                );
                $this->inHand = (int) $message->id;
                $this->renewedAt = time();
            }

            return $message;
        });
    }

    /** Shows that the letter is still in hand; who has lost it to another leaves it alone. */
    private function renew(): void
    {
        if ($this->inHand === null || time() - $this->renewedAt < self::LEASE_SECONDS / 6) {
            return;
        }
        if ($this->db->update('UPDATE messages SET leased_until = ? WHERE id = ? AND leased_by = ?', [self::leaseEnd(), $this->inHand, $this->name]) !== 1) {
            throw new LeaseLost('Another sender has the letter.');
        }
        $this->renewedAt = time();
    }

    private function mail(object $message): void
    {
        $this->mailer ??= new Mailer($this->renew(...));
        $this->mailer->send($message);
    }

    /** One HTTP request for each message; a gateway that knows idempotency keys counts none twice. */
    private function text(object $message): void
    {
        $to = json_decode($message->recipients, true, 16, JSON_THROW_ON_ERROR)['to'][0];
        try {
            $answer = Http::timeout(self::TEXT_SECONDS)->withToken(self::gatewayToken())->withHeaders(['Idempotency-Key' => $message->key])
                ->post((string) config('ledger.sms.url'), ['to' => $to['address'], 'text' => $message->text]);
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

    private function failed(object $message, string $trouble, bool $isUnsure): void
    {
        $tries = (int) $message->tries + 1;
        $unsure = (int) $message->unsure + ($isUnsure ? 1 : 0);
        $over = $tries >= self::MOST_TRIES || $unsure > self::MOST_UNSURE;
        $this->db->transaction(function () use ($message, $trouble, $isUnsure, $tries, $unsure, $over): void {
            // 10 s, 40 s, 90 s … : a short trouble is soon over, and a long one is not hammered at.
            $marked = $this->db->update(
                'UPDATE messages SET status = ?, tries = ?, unsure = ?, leased_until = NULL, leased_by = NULL, next_try_at = ?, trouble = ? WHERE id = ? AND leased_by = ?',
                [
                    $over ? 'failed' : 'waiting', $tries, $unsure, gmdate('Y-m-d H:i:s', time() + 10 * $tries * $tries),
                    mb_substr($isUnsure ? "{$trouble} It may have arrived all the same." : $trouble, 0, 500), $message->id, $this->name,
                ],
            );
            if ($marked === 1 && $over && $unsure > 0) {
                $this->unsureEntry($message, $unsure, false);
            }
        });
    }

    /** The ledger says of a letter that it may have arrived more than once. */
    private function unsureEntry(object $message, int $times, bool $isDelivered): void
    {
        $about = (int) $message->record_id > 0;
        Batch::insert($this->db, 'entries', [[
            'kind' => 'unsure', 'at' => Columns::moment($this->clock->now()), 'via' => 'rule', 'record_type' => $about ? $message->record_type : null, 'record_id' => $about ? $message->record_id : null,
            'rule_id' => $message->rule_id, 'cause_id' => $message->entry_id,
            'data' => json_encode(
                ['message' => (int) $message->id, 'subject' => $message->subject, 'times' => $times, 'delivered' => $isDelivered],
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
            ),
        ]]);
    }

    private static function leaseEnd(): string
    {
        return gmdate('Y-m-d H:i:s', time() + self::LEASE_SECONDS);
    }
}
