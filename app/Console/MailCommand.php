<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Outbound\MailKind;
use App\Work\Inbound\InboundMail;
use Illuminate\Console\Command;

/** Takes in a mail from a pipe, as any mail server hands it over. */
final class MailCommand extends Command
{
    protected $signature = 'ledger:mail';

    protected $description = 'Take in a mail from standard input (RFC 5322), as a mail server pipes it';

    /** What a mail server understands (sysexits): the mail is no good, and it is no use to come again. */
    private const BAD_MAIL = 65;

    public function handle(InboundMail $door): int
    {
        try {
            $mail = $door->take((string) stream_get_contents(STDIN));
        } catch (\DomainException $bad) {
            $this->components->error($bad->getMessage());

            return self::BAD_MAIL;
        }
        $this->components->info(match ($mail->kind) {
            MailKind::Reply, MailKind::Decision => 'It answers a letter of ours, and is taken.',
            MailKind::Auto => 'A robot wrote it. It is kept, and nothing follows.',
            MailKind::Bounce => 'It tells of a letter that could not be delivered.',
            MailKind::Loop => 'Too many of this sender came within an hour. It is kept, and nothing follows.',
            MailKind::Refused => "It could not be taken: {$mail->trouble}",
            MailKind::Unknown => 'It answers no letter of ours. It is kept.',
        });

        return self::SUCCESS;
    }
}
