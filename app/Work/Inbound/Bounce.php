<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use ZBateson\MailMimeParser\IMessage;

/** A report that a letter of ours could not be delivered (RFC 3464). */
final class Bounce
{
    /** @return ?array{recipient: string, status: string, of: string, why: string} null where the mail is no such report */
    public static function in(IMessage $mail): ?array
    {
        $report = '';
        $original = '';
        foreach ($mail->getAllParts() as $part) {
            $type = strtolower((string) $part->getContentType());
            if ($type === 'message/delivery-status') {
                $report .= "\n".$part->getContent();
            } elseif ($type === 'text/rfc822-headers' || $type === 'message/rfc822') {
                $original .= "\n".$part->getContent();
            }
        }
        $said = static fn (string $name): string => preg_match("/^{$name}:\\s*(.+?)\\s*$/im", $report, $found) === 1 ? $found[1] : '';
        if ($report === '' || strtolower($said('Action')) !== 'failed') {
            return null;
        }
        $recipient = (string) preg_replace('/^rfc822;\s*/i', '', $said('Final-Recipient') ?: $said('Original-Recipient'));

        return [
            'recipient' => mb_strtolower(trim($recipient, " <>\t")), 'status' => $said('Status'),
            'of' => preg_match('/^Message-ID:\s*<([^>]+)>/im', $original, $found) === 1 ? $found[1] : '',
            'why' => mb_substr((string) preg_replace('/^smtp;\s*/i', '', $said('Diagnostic-Code')), 0, 300),
        ];
    }
}
