<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Database\Connection;
use Symfony\Component\Mailer\Transport;
use Symfony\Component\Mailer\Transport\TransportInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;

/**
 * Delivers what waits in the outbox: mail over SMTP, text messages over HTTP. A message is leased, sent, and then marked;
 * one whose sender dies in between is sent once more under the same name, by which whoever takes it can tell.
 */
final class Postman
{
    private const LEASE_SECONDS = 120;

    private const MOST_TRIES = 8;

    private ?TransportInterface $transport = null;

    public function __construct(private readonly Connection $db)
    {
    }

    /** @return int how many messages were dealt with; fewer than a batch means that nothing more is due */
    public function work(int $batch): int
    {
        $messages = $this->lease($batch);
        foreach ($messages as $message) {
            try {
                $message->channel === 'sms' ? $this->text($message) : $this->mail($message);
                $this->db->update("UPDATE messages SET status = 'delivered', tries = tries + 1, leased_until = NULL, trouble = '', done_at = ? WHERE id = ?", [gmdate('Y-m-d H:i:s'), $message->id]);
            } catch (\Throwable $trouble) {
                $this->failed($message, $trouble->getMessage());
            }
        }

        return count($messages);
    }

    /** Tries a message again that had been given up. */
    public function again(int $id): bool
    {
        return $this->db->update("UPDATE messages SET status = 'waiting', tries = 0, next_try_at = ?, leased_until = NULL WHERE id = ? AND status = 'failed'", [gmdate('Y-m-d H:i:s'), $id]) === 1;
    }

    /** @return list<object> */
    private function lease(int $batch): array
    {
        return $this->db->transaction(function () use ($batch): array {
            // By the machine's own time: a house clock that is held or turned does not keep letters back.
            $now = gmdate('Y-m-d H:i:s');
            $messages = $this->db->select(
                "SELECT * FROM messages WHERE status = 'waiting' AND (leased_until IS NULL OR leased_until < ?) AND (tries = 0 OR next_try_at <= ?) ORDER BY id LIMIT {$batch} FOR UPDATE SKIP LOCKED",
                [$now, $now],
            );
            if ($messages !== []) {
                $this->db->table('messages')->whereIn('id', array_column($messages, 'id'))->update(['leased_until' => gmdate('Y-m-d H:i:s', time() + self::LEASE_SECONDS)]);
            }

            return $messages;
        });
    }

    private function mail(object $message): void
    {
        $to = json_decode($message->recipients, true, 16, JSON_THROW_ON_ERROR);
        $address = static fn (array $one): Address => new Address($one['address'], $one['name'] === $one['address'] ? '' : $one['name']);
        $email = (new Email)
            ->from(new Address((string) config('ledger.mail.from'), (string) config('ledger.mail.name')))
            ->to(...array_map($address, $to['to']))
            ->cc(...array_map($address, $to['cc']))
            ->subject($message->subject)
            ->text($message->text);
        if ($message->html !== '') {
            $email->html('<!DOCTYPE html><html><body>'.$message->html.'</body></html>');
        }
        if ($to['replyTo'] !== null) {
            $email->replyTo($address($to['replyTo']));
        }
        $email->date(new \DateTimeImmutable($message->created_at.'Z'));
        $email->getHeaders()->addIdHeader('Message-ID', "{$message->key}@".substr(strrchr((string) config('ledger.mail.from'), '@') ?: '@localhost', 1));
        $this->transport ??= Transport::fromDsn((string) config('ledger.mail.dsn'));
        $this->transport->send($email);
    }

    /** One HTTP request for each message; a gateway that knows idempotency keys counts none twice. */
    private function text(object $message): void
    {
        $to = json_decode($message->recipients, true, 16, JSON_THROW_ON_ERROR)['to'][0];
        $answer = @file_get_contents((string) config('ledger.sms.url'), false, stream_context_create(['http' => [
            'method' => 'POST', 'timeout' => 10, 'ignore_errors' => true,
            'header' => "Content-Type: application/json\r\nIdempotency-Key: {$message->key}\r\nAuthorization: Bearer ".config('ledger.sms.token')."\r\n",
            'content' => json_encode(['to' => $to['address'], 'text' => $message->text], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ]]));
        $status = $http_response_header[0] ?? '';
        if ($answer === false || preg_match('#^HTTP/\S+ 2\d\d#', $status) !== 1) {
            throw new \RuntimeException($answer === false ? 'The gateway for text messages cannot be reached.' : "The gateway for text messages answered {$status}.");
        }
    }

    private function failed(object $message, string $trouble): void
    {
        $this->transport = null;
        $tries = (int) $message->tries + 1;
        $over = $tries >= self::MOST_TRIES;
        // 10 s, 40 s, 90 s … : a short trouble is soon over, and a long one is not hammered at.
        $this->db->update(
            'UPDATE messages SET status = ?, tries = ?, leased_until = NULL, next_try_at = ?, trouble = ? WHERE id = ?',
            [$over ? 'failed' : 'waiting', $tries, gmdate('Y-m-d H:i:s', time() + 10 * $tries * $tries), mb_substr($trouble, 0, 500), $message->id],
        );
    }
}
