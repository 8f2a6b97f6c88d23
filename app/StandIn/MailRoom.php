<?php

declare(strict_types=1);

namespace App\StandIn;

use App\Models\Columns;
use App\Models\Outbound\MailRoomItem;
use App\Store\HouseClock;

/** The shelf of the mail room: takes letters in, and finds them again. A letter that comes twice under one name stands there once. */
final readonly class MailRoom
{
    private const LENGTH = 190;

    private const LONGEST_SUBJECT = 500;

    private const LONGEST_RECIPIENTS = 2000;

    public function __construct(
        private HouseClock $clock,
    ) {
    }

    public function takeMail(string $raw): void
    {
        $letter = Eml::read($raw);
        $sent = strtotime($letter->header('Date'));
        $name = $letter->header('Message-ID');
        $this->put(
            'email', $name === '' ? hash('sha256', $raw)
                : $name, $letter->header('From'), $letter->header('To'), $letter->header('Subject'),
            $letter->text(), $raw, $sent === false ? null : new \DateTimeImmutable("@{$sent}"),
        );
    }

    public function takeText(string $key, string $to, string $text): void
    {
        $this->put('sms', $key, '', $to, '', $text, $text);
    }

    private function put(
        string $kind, string $name, string $sender, string $recipients, string $subject, string $text, string $raw,
        ?\DateTimeImmutable $at = null,
    ): void {
        MailRoomItem::rows()->insertOrIgnore([
            'kind' => $kind, 'message_id' => mb_substr($name, 0, self::LENGTH), 'at' => Columns::moment($at ?? $this->clock->now()),
            'sender' => mb_substr($sender, 0, self::LENGTH), 'recipients' => mb_substr($recipients, 0, self::LONGEST_RECIPIENTS),
            'subject' => mb_substr($subject, 0, self::LONGEST_SUBJECT), 'text' => $text, 'raw' => $raw,
        ]);
    }
}
