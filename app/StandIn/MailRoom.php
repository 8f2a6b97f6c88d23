<?php

declare(strict_types=1);

namespace App\StandIn;

use App\Store\Columns;
use App\Work\HouseClock;
use Illuminate\Database\Connection;

/** The shelf of the mail room: takes letters in, and finds them again. A letter that comes twice under one name stands there once. */
final readonly class MailRoom
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    public function takeMail(string $raw): void
    {
        $letter = Eml::read($raw);
        $sent = strtotime($letter->header('Date'));
        $this->put('email', $letter->header('Message-ID') === '' ? hash('sha256', $raw) : $letter->header('Message-ID'), $letter->header('From'), $letter->header('To'), $letter->header('Subject'), $letter->text(), $raw, $sent === false ? null : new \DateTimeImmutable("@{$sent}"));
    }

    public function takeText(string $key, string $to, string $text): void
    {
        $this->put('sms', $key, '', $to, '', $text, $text);
    }

    private function put(string $kind, string $name, string $sender, string $recipients, string $subject, string $text, string $raw, ?\DateTimeImmutable $at = null): void
    {
        $this->db->statement(
            'INSERT IGNORE INTO mail_room (kind, message_id, at, sender, recipients, subject, text, raw) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
            [$kind, mb_substr($name, 0, 190), Columns::moment($at ?? $this->clock->now()), mb_substr($sender, 0, 190), mb_substr($recipients, 0, 2000), mb_substr($subject, 0, 500), $text, $raw],
        );
    }
}
