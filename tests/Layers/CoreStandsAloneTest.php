<?php

declare(strict_types=1);

namespace Tests\Layers;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The layers of the project, checked by the static analysis: the core knows nothing of what stands around it. */
final class CoreStandsAloneTest
{
    public function test_core_depends_on_nothing_but_itself_and_exact_numbers(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('VividLedger'))
            ->canOnlyDependOn()
            ->classes(
                Selector::inNamespace('VividLedger'),
                Selector::inNamespace('Brick\Math'),
                Selector::inNamespace('SebastianBergmann\Diff'),
                Selector::inNamespace('Twig'),
                Selector::inNamespace('Sabre\VObject'),
                Selector::inNamespace('Symfony\Component\ExpressionLanguage'),
                Selector::inNamespace('Symfony\Component\HtmlSanitizer'),
                Selector::classname('/^[A-Z][A-Za-z]+$/', true),
            )
            ->because('the rules of the job are tested on their own, without framework, database or interface');
    }
}
