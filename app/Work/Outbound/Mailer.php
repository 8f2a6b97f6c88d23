<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Models\Outbound\StoredMessage;
use App\Store\Outbound\LetterLinks;
use App\Work\Inbound\ReplyAddress;
use Closure;
use Symfony\Component\Mailer\Transport;
use Symfony\Component\Mailer\Transport\Dsn;
use Symfony\Component\Mailer\Transport\Smtp\EsmtpTransport;
use Symfony\Component\Mailer\Transport\Smtp\Stream\SocketStream;
use Symfony\Component\Mailer\Transport\TransportInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use VividLedger\Words\Words;

/** Sends mail to the server that the configuration names. */
final class Mailer
{
    private const STYLE = 'body{font-family:sans-serif;font-size:14px;color:#22303c}table{border-collapse:collapse;margin:4px 0 14px}'
        .'th,td{border:1px solid #d8d2c4;padding:5px 9px;text-align:left;vertical-align:top}th{background:#f4efe4;font-size:12px}'
        .'h3{margin:14px 0 4px}@media(max-width:480px){table{display:block;overflow-x:auto}}';

    private ?TransportInterface $transport = null;

    private ?PatientStream $stream = null;

    /** @param  Closure(): void  $stillHere  called again and again while a letter is being sent */
    public function __construct(private readonly Closure $stillHere)
    {
    }

    public function send(StoredMessage $message): void
    {
        $to = $message->recipients;
        $address = static fn (array $one): Address => new Address($one['address'], $one['name'] === $one['address'] ? '' : $one['name']);
        $email = (new Email)
            ->from(new Address((string) config('ledger.mail.from'), (string) config('ledger.mail.name')))
            ->to(...array_map($address, $to['to']))
            ->cc(...array_map($address, $to['cc']))
            ->subject($message->subject)
            ->text(LetterLinks::whole(LetterLinks::filled($message, $message->text)));
        $language = $to['to'][0]['language'] ?? Words::OWN;
        if ($message->html !== '') {
            $html = LetterLinks::filled($message, str_replace('href="/', 'href="'.LetterLinks::root().'/', $message->html));
            $title = htmlspecialchars($message->subject, ENT_QUOTES | ENT_SUBSTITUTE);
            $email->html("<!DOCTYPE html><html lang=\"{$language}\"><head><meta charset=\"utf-8\"><title>{$title}</title>"
                .'<meta name="viewport" content="width=device-width, initial-scale=1">'
                .'<style>'.self::STYLE.'</style></head><body>'.$html.'</body></html>');
        }
        // An answer finds its way by the address that it goes to.
        $deciding = LetterLinks::deciding($message);
        $email->replyTo(match (true) {
            $to['replyTo'] !== null => $address($to['replyTo']),
            $deciding !== null => new Address($deciding, (string) config('ledger.mail.name')),
            default => new Address(ReplyAddress::of($message)),
        });
        if ($message->may_unsubscribe) {
            $link = LetterLinks::root().ReplyAddress::unsubscribe($to['to'][0]['address']);
            $email->getHeaders()->addTextHeader('List-Unsubscribe', "<{$link}>");
            $email->getHeaders()->addTextHeader('List-Unsubscribe-Post', 'List-Unsubscribe=One-Click');
        }
        $email->date($message->created_at);
        self::mark($email, $language);
        $email->getHeaders()->addIdHeader(
            'Message-ID',
            "{$message->key}@".substr(strrchr((string) config('ledger.mail.from'), '@') ?: '@localhost', 1),
        );
        try {
            $this->transport()->send($email);
        } catch (\Throwable $trouble) {
            $this->transport = null;
            throw $trouble;
        }
    }

    /** A letter of the house to one of its own: an invitation, a link for another password. */
    public function tell(string $name, string $address, string $subject, string $text): void
    {
        $email = (new Email)->from(new Address((string) config('ledger.mail.from'), (string) config('ledger.mail.name')))
            ->to(new Address($address, $name))->subject($subject)->text($text);
        self::mark($email, Words::language());
        $this->transport()->send($email);
    }

    /** No person has written it, so that no robot answers (RFC 3834 §5); and in which language it is (RFC 3282). */
    private static function mark(Email $email, string $language): void
    {
        $email->getHeaders()->addTextHeader('Auto-Submitted', 'auto-generated')->addTextHeader('Content-Language', $language);
    }

    /** Whether the last letter that failed had been handed over: then it may have arrived all the same. */
    public function mayHaveArrived(): bool
    {
        return $this->stream?->mayHaveArrived === true;
    }

    private function transport(): TransportInterface
    {
        if ($this->transport !== null) {
            return $this->transport;
        }
        $dsn = Dsn::fromString((string) config('ledger.mail.dsn'));
        if (! in_array($dsn->getScheme(), ['smtp', 'smtps'], true)) {
            return $this->transport = Transport::fromDsn((string) config('ledger.mail.dsn'));
        }
        $port = $dsn->getPort(0) ?? 0;
        $isTls = $dsn->getScheme() === 'smtps' || $port === 465;
        $line = new SocketStream;
        if (! filter_var($dsn->getOption('verify_peer', 'true'), FILTER_VALIDATE_BOOL)) {
            $line->setStreamOptions(['ssl' => ['verify_peer' => false, 'verify_peer_name' => false]]);
        }
        $this->stream = new PatientStream($line, $this->stillHere);
        $smtp = new EsmtpTransport($dsn->getHost(), $port, $isTls, stream: $this->stream);
        $smtp->setAutoTls(filter_var($dsn->getOption('auto_tls', 'true'), FILTER_VALIDATE_BOOL));
        if ($dsn->getUser() !== null) {
            $smtp->setUsername($dsn->getUser());
        }
        if ($dsn->getPassword() !== null) {
            $smtp->setPassword($dsn->getPassword());
        }

        return $this->transport = $smtp;
    }
}
