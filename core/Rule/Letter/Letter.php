<?php

declare(strict_types=1);

namespace VividLedger\Rule\Letter;

use Twig\Environment;
use Twig\Extension\SandboxExtension;
use Twig\Loader\ArrayLoader;
use Twig\Markup;
use Twig\Sandbox\SecurityPolicy;
use Twig\TemplateWrapper;
use Twig\TwigFunction;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Template\LinkPiece;
use VividLedger\Template\Piece;
use VividLedger\Template\Pieces;
use VividLedger\Template\RichText;
use VividLedger\Template\Template;
use VividLedger\Words\Words;

/** A subject and a formatted body with merge fields. The body is rendered by Twig in its sandbox, which knows merge and address. */
final class Letter
{
    public const SUBJECT_LENGTH = 200;

    public const BODY_LENGTH = 50_000;

    private static ?Environment $twig = null;

    /** @var ?\Closure(string): string what merge() answers for the letter at hand */
    private static ?\Closure $merge = null;

    /** @var ?\Closure(string): string what address() answers for it */
    private static ?\Closure $address = null;

    private ?TemplateWrapper $template = null;

    /** @param  array<string, Piece>  $merges  by name */
    private function __construct(
        private readonly Template $subject,
        private readonly string $body,
        private readonly array $merges,
    ) {
    }

    /** Reads "subject" and "body" and words nothing; null with the problems noted. */
    public static function read(Context $context, Node $subject, Node $body, bool $wantsSubject): ?self
    {
        $title = trim($subject->text() ?? '');
        if ($title === '' && $wantsSubject) {
            return $context->problem($subject->at, 'missing', Words::say('Give the message a subject.'));
        }
        if (mb_strlen($title) > self::SUBJECT_LENGTH) {
            return $context->problem(
                $subject->at,
                'too_long',
                Words::say('A subject has at most {subjectlength} characters.', subjectlength: self::SUBJECT_LENGTH),
            );
        }
        $html = $body->text() ?? '';
        if (mb_strlen($html) > self::BODY_LENGTH) {
            return $context->problem(
                $body->at,
                'too_long',
                Words::say('A message has at most {most} characters.', most: Words::figures(self::BODY_LENGTH)),
            );
        }
        $clean = RichText::clean($html);
        if (RichText::plain($clean) === '') {
            return $context->problem($body->at, 'missing', Words::say('Write the message.'));
        }
        $merges = [];
        foreach ([...RichText::merges($clean), ...RichText::merged($clean)] as $name) {
            $piece = Pieces::named($context->schema, $context->type, $name);
            if ($piece === null) {
                return $context->problem(
                    $body->at,
                    'unknown_field',
                    Words::say('{type} has no field ‘{name}’ to merge.', type: $context->type->label, name: $name),
                );
            }
            $merges[$name] = $piece;
        }
        $template = Template::read($context, $title, $subject->at);

        return $template === null ? null : new self($template, $clean, $merges);
    }

    /** One line: what could begin another header is gone. */
    public function subject(View $view, Display $display, string $number): string
    {
        return mb_substr($this->subject->render($view, $display, $number), 0, self::SUBJECT_LENGTH);
    }

    public function html(View $view, Display $display, string $number): string
    {
        // A value of several lines keeps them.
        $text = fn (string $name): string => isset($this->merges[$name]) ? $this->merges[$name]->text($view, $display, $number) : '';
        self::$merge = fn (string $name): string => ($this->merges[$name] ?? null) instanceof LinkPiece
            ? $this->merges[$name]->html($view, $number)
            : nl2br(htmlspecialchars($text($name)));
        // What is merged into an address is a part of it, and never another address. A mail address keeps its sign.
        self::$address = static fn (string $name): string => str_replace('%40', '@', rawurlencode(trim($text($name))));
        $this->template ??= self::twig()->createTemplate(RichText::twig($this->body));

        return $this->template->render();
    }

    /** @return list<string> labels of merge fields that are empty for a record */
    public function missing(View $view): array
    {
        $missing = [];
        foreach ([...$this->subject->pieces(), ...array_values($this->merges)] as $piece) {
            if ($piece->isMissing($view)) {
                $missing[$piece->name()] = $piece->label();
            }
        }

        return array_values($missing);
    }

    private static function twig(): Environment
    {
        if (self::$twig === null) {
            $twig = new Environment(new ArrayLoader, ['autoescape' => 'html', 'strict_variables' => true]);
            $twig->addExtension(new SandboxExtension(new SecurityPolicy([], ['escape'], [], [], ['merge', 'address']), true));
            $twig->addFunction(
                new TwigFunction(
                    'merge',
                    static fn (string $name): Markup => new Markup(self::$merge === null ? '' : (self::$merge)($name), 'UTF-8'),
                ),
            );
            $twig->addFunction(
                new TwigFunction('address', static fn (string $name): string => self::$address === null ? '' : (self::$address)($name)),
            );
            self::$twig = $twig;
        }

        return self::$twig;
    }
}
