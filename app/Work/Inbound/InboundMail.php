<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use App\Models\Columns;
use App\Models\Inbound\IncomingMail;
use App\Models\Ledger\Entry;
use App\Models\Outbound\AddressMark;
use App\Models\Outbound\MailKind;
use App\Models\Outbound\MessageAddress;
use App\Models\Outbound\StoredMessage;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\RecordEvents;
use App\Store\SignOffs\SignOffLink;
use App\Store\SignOffs\SignOffReplies;
use App\Store\Sql\Batch;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use Illuminate\Http\UploadedFile;
use VividLedger\Record\CauseKind;

/**
 * The one door by which mail comes in, whatever brings it: piped, posted, or fetched. Each mail is taken once. An answer lands on the
 * record that our letter was about, and rules hear of it; what robots write is told apart, and what bounces is marked at the address.
 */
final readonly class InboundMail
{
    /** So many mails of one sender an hour are a conversation of robots. */
    private const MOST_AN_HOUR = 20;

    /** So many answers to one letter an hour: it has been passed round, or somebody plays with it. */
    private const MOST_TO_A_LETTER = 20;

    /** An answer without any trace of what it answers goes to the latest letter of so many days. */
    private const TRACE_DAYS = 30;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private SchemaStore $schemas,
        private RecordEvents $events,
        private SignOffReplies $signOffs,
    ) {
    }

    /** @throws \DomainException when it is no mail, or too large */
    public function take(string $raw): IncomingMail
    {
        $mail = MailReader::read($raw);
        $known = IncomingMail::query()->firstWhere('message_id', $mail->id);

        return $known ?? $this->db->transaction(function () use ($mail): IncomingMail {
            $answers = $this->answered($mail);
            $kept = IncomingMail::query()->create([
                'message_id' => $mail->id, 'at' => $this->clock->now(), 'sender' => mb_substr($mail->from, 0, 190),
                'subject' => mb_substr($mail->subject, 0, 500), 'kind' => $this->kind($mail, $answers),
                'record_type' => $answers?->record_type, 'record_id' => $answers?->record_id, 'answers_id' => $answers?->id,
                'text' => $mail->words, 'trouble' => '',
            ]);
            match ($kept->kind) {
                MailKind::Bounce => $this->bounced($mail, $kept),
                MailKind::Decision => $this->decided($mail, $kept),
                MailKind::Reply => $this->replied($mail, $kept),
                MailKind::Auto, MailKind::Loop => $this->setAside($kept),
                default => null,
            };

            return $kept;
        });
    }

    /** By what the address to which a mail server posts is known. */
    public static function sign(): string
    {
        return substr(hash_hmac('sha256', 'mail door', (string) config('app.key')), 0, 40);
    }

    private function kind(ReadMail $mail, ?StoredMessage $answers): MailKind
    {
        $lately = IncomingMail::query()->where('sender', mb_substr($mail->from, 0, 190))
            ->where('at', '>', Columns::moment($this->clock->now()->modify('-1 hour')))->count();

        return match (true) {
            $mail->bounce !== null => MailKind::Bounce,
            $mail->isAuto, $this->isOurs($mail->from) => MailKind::Auto,
            $lately >= self::MOST_AN_HOUR => MailKind::Loop,
            self::token($mail) !== null => MailKind::Decision,
            $answers !== null && $this->answersTo($answers) >= self::MOST_TO_A_LETTER => MailKind::Loop,
            $answers !== null && $answers->record_id > 0 => MailKind::Reply,
            default => MailKind::Unknown,
        };
    }

    /** How many answers to a letter have come within the hour, whoever wrote them. */
    private function answersTo(StoredMessage $letter): int
    {
        return IncomingMail::query()->where('answers_id', $letter->id)->where('kind', MailKind::Reply)
            ->where('at', '>', Columns::moment($this->clock->now()->modify('-1 hour')))->count();
    }

    /** The letter of ours that it answers: by the address it came to, by what it says it answers, or by its sender. */
    private function answered(ReadMail $mail): ?StoredMessage
    {
        if ($mail->bounce !== null) {
            // Anybody can write a report; only whoever has had the letter knows its id.
            $letter = $this->byId([$mail->bounce['of']]);

            return $letter?->wentTo($mail->bounce['recipient']) === true ? $letter : null;
        }

        return ReplyAddress::messageIn($mail->to) ?? $this->byId($mail->answers) ?? $this->latestTo($mail->from);
    }

    /** @param  list<string>  $ids */
    private function byId(array $ids): ?StoredMessage
    {
        $keys = array_map(static fn (string $id): string => explode('@', $id)[0], array_filter($ids));

        return $keys === [] ? null : StoredMessage::query()->whereIn('key', $keys)->latest('id')->first();
    }

    private function latestTo(string $address): ?StoredMessage
    {
        $id = $address === '' ? null : MessageAddress::query()->where('address', mb_substr(mb_strtolower($address), 0, 190))
            ->where('at', '>', Columns::moment($this->clock->now()->modify('-'.self::TRACE_DAYS.' days')))->max('message_id');

        return $id === null ? null : StoredMessage::query()->find((int) $id);
    }

    private function replied(ReadMail $mail, IncomingMail $kept): void
    {
        $type = $this->schemas->schema()->type((string) $kept->record_type);
        if ($type === null || $kept->record_id === null) {
            return;
        }
        $from = $mail->fromName === '' ? $mail->from : "{$mail->fromName} <{$mail->from}>";
        try {
            $words = $mail->words === '' ? ($mail->subject === '' ? 'An answer without words' : $mail->subject) : $mail->words;
            $this->events->reply($type, $kept->record_id, mb_substr($words, 0, RecordEvents::LONGEST), $from, new Actor(null));
            foreach ($mail->files as $file) {
                $this->file($kept, $file);
            }
        } catch (DomainError $refused) {
            $kept->update(['kind' => MailKind::Refused, 'trouble' => mb_substr($refused->getMessage(), 0, 500)]);
        }
    }

    /** @param  array{name: string, type: string, content: string}  $file */
    private function file(IncomingMail $kept, array $file): void
    {
        $type = $this->schemas->schema()->types[(string) $kept->record_type];
        $path = tempnam(sys_get_temp_dir(), 'mail') ?: throw new \RuntimeException('No room for a file.');
        try {
            file_put_contents($path, $file['content']);
            $this->events->file($type, (int) $kept->record_id, new UploadedFile($path, $file['name'], null, null, true), new Actor(null));
        } catch (DomainError $refused) {
            $kept->update(['trouble' => mb_substr("{$file['name']}: {$refused->getMessage()}", 0, 500)]);
        } finally {
            @unlink($path);
        }
    }

    private function decided(ReadMail $mail, IncomingMail $kept): void
    {
        try {
            $this->signOffs->take((string) self::token($mail), $mail->words);
        } catch (DomainError $refused) {
            $kept->update(['kind' => MailKind::Refused, 'trouble' => mb_substr($refused->getMessage(), 0, 500)]);
        }
    }

    private function bounced(ReadMail $mail, IncomingMail $kept): void
    {
        $bounce = $mail->bounce ?? ['recipient' => '', 'status' => '', 'of' => '', 'why' => ''];
        // What may go through tomorrow (RFC 3463) says nothing about the address.
        $isForGood = ! str_starts_with($bounce['status'], '4.');
        $why = trim("{$bounce['status']} {$bounce['why']}");
        if ($kept->answers_id === null) {
            $kept->update(['trouble' => 'It names no letter that went to this address, and is not believed.']);

            return;
        }
        if ($isForGood && $bounce['recipient'] !== '') {
            AddressMark::set($bounce['recipient'], AddressMark::BOUNCES, $this->clock->now(), $why);
        }
        $kept->update(['trouble' => mb_substr($why, 0, 500)]);
        $this->tell($kept, 'bounced', ['to' => $bounce['recipient'], 'why' => $why, 'forGood' => $isForGood]);
    }

    private function setAside(IncomingMail $kept): void
    {
        $this->tell($kept, 'mail_aside', ['from' => $kept->sender, 'subject' => $kept->subject, 'kind' => $kept->kind->value]);
    }

    /** @param  array<string, mixed>  $data */
    private function tell(IncomingMail $kept, string $kind, array $data): void
    {
        if ($kept->record_id !== null && $kept->record_id > 0) {
            Batch::insert(Entry::class, [Entry::row($kind, $this->clock->now(), $data, [
                'via' => CauseKind::Rule, 'record_type' => $kept->record_type, 'record_id' => $kept->record_id,
            ])]);
        }
    }

    private static function token(ReadMail $mail): ?string
    {
        foreach ($mail->to as $address) {
            $token = SignOffLink::inAddress($address);
            if ($token !== null) {
                return $token;
            }
        }

        return null;
    }

    /** Whether it came from where our own letters come from. */
    private function isOurs(string $from): bool
    {
        $plain = static fn (string $address): string => mb_strtolower((string) preg_replace('/\+[^@]*@/', '@', $address));

        return $plain($from) === $plain((string) config('ledger.mail.from'));
    }
}
