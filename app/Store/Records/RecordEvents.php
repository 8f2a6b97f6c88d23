<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Columns;
use App\Models\Records\Attachment;
use App\Models\Records\AttachmentContent;
use App\Models\Records\Comment;
use App\Models\Records\Follower;
use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Outbound\Mentions;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use Illuminate\Http\UploadedFile;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** What people add to a record besides its fields: comments, files, and that they follow it. */
final readonly class RecordEvents
{
    public const LONGEST = 5000;

    public function __construct(
        private SaveRecord $save,
        private HouseClock $clock,
        private Mentions $mentions,
    ) {
    }

    /** @throws DomainError when it is empty or too long, or a rule refuses it */
    public function comment(RecordType $type, int $id, string $text, Actor $actor): Saved
    {
        $text = trim($text);
        if ($text === '' || mb_strlen($text) > self::LONGEST || ! mb_check_encoding($text, 'UTF-8')) {
            throw $this->refusal(
                'text',
                $text === ''
                    ? Words::say('Write the comment first.')
                    : Words::say('A comment has at most {longest} characters.', longest: self::LONGEST),
            );
        }

        return $this->save->recordEvent($type, $id, function () use ($type, $id, $text, $actor): Event {
            $now = $this->clock->now();
            [$comment] = Batch::insertForIds(Comment::class, [[
                'record_type' => $type->name, 'record_id' => $id, 'text' => $text, 'author_id' => $actor->personId, 'rule_id' => null,
                'at' => Columns::moment($now),
            ]]);
            $this->mentions->keep($comment, $type, $id, $text, $actor->personId, $now);

            return new Event(EventKind::Comment, "comment:{$comment}", $text);
        }, $actor, ['text' => $text]);
    }

    /**
     * Somebody answered a message.
     *
     * @param  string  $from  as the answer names its sender
     *
     * @throws DomainError when it is empty or too long, or a rule refuses it
     */
    public function reply(RecordType $type, int $id, string $text, string $from, Actor $actor): Saved
    {
        $text = trim($text);
        if ($text === '' || mb_strlen($text) > self::LONGEST || ! mb_check_encoding($text, 'UTF-8')) {
            throw $this->refusal(
                'text',
                $text === ''
                    ? Words::say('Write the answer first.')
                    : Words::say('An answer has at most {longest} characters.', longest: self::LONGEST),
            );
        }
        $key = 'reply:'.bin2hex(random_bytes(8));

        return $this->save->recordEvent(
            $type,
            $id,
            static fn (): Event => new Event(EventKind::Reply, $key, $text, from: $from),
            $actor,
            ['text' => $text, 'from' => $from],
        );
    }

    public static function fileBytes(): int
    {
        return (int) config('limits.file_bytes');
    }

    public static function tooLarge(): string
    {
        return Words::say('A file has at most {size} MB.', size: (string) round(self::fileBytes() / 1_000_000, 1));
    }

    /** @throws DomainError when it is empty or too large, or a rule refuses it */
    public function file(RecordType $type, int $id, UploadedFile $upload, Actor $actor): Saved
    {
        $bytes = (int) $upload->getSize();
        $name = mb_substr(trim((string) preg_replace('#[\x00-\x1F\x7F/\\\\]+#', ' ', $upload->getClientOriginalName())), 0, 190);
        if ($bytes === 0 || $bytes > self::fileBytes() || $name === '') {
            throw $this->refusal('file', $bytes > self::fileBytes() ? self::tooLarge() : Words::say('The file is empty.'));
        }
        $data = ['name' => $name, 'bytes' => $bytes];

        return $this->save->recordEvent($type, $id, function () use ($type, $id, $upload, $actor, $name, $bytes): Event {
            [$file] = Batch::insertForIds(Attachment::class, [[
                'record_type' => $type->name, 'record_id' => $id, 'name' => $name, 'media_type' => mb_substr(
                    (string) ($upload->getMimeType() ?? 'application/octet-stream'),
                    0,
                    120,
                ), 'bytes' => $bytes,
                'author_id' => $actor->personId, 'at' => Columns::moment($this->clock->now()),
            ]]);
            Batch::insert(AttachmentContent::class, [['file_id' => $file, 'content' => (string) $upload->get()]]);

            return new Event(EventKind::File, "file:{$file}", $name);
        }, $actor, $data);
    }

    /** @throws DomainError when there is no such record */
    public function follow(RecordType $type, int $id, int $person, bool $follows): void
    {
        if ($follows && ! StoredRecord::rowsOf($type)->where('id', $id)->exists()) {
            throw DomainError::noRecord($type, $id);
        }
        Follower::set($type->name, $id, $person, $follows);
    }

    private function refusal(string $at, string $message): DomainError
    {
        return new DomainError(
            'invalid_values',
            $message,
            RefusedFor::Invalid,
            [['at' => "/{$at}", 'code' => 'invalid_value', 'message' => $message]],
        );
    }
}
