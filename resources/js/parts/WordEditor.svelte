<script lang="ts">
    import type { Document } from '../state/document.svelte';
    import { at as valueAt, put, split, type Json, type JsonObject } from '../state/pointer';
    import { session } from '../state/session.svelte';
    import Choose from './Choose.svelte';
    import DueEditor from './DueEditor.svelte';
    import { chooseField, chooseOperator, chooseTrigger, chooseWatched, subjectOf, textAt, type Word } from './editors';
    import FieldValue from './FieldValue.svelte';
    import { comparedField, fieldOptions, furtherSubjects, operand, operandField, operatorsFor, ownFields } from './offers';
    import type { Option } from './options';
    import TitleEditor from './TitleEditor.svelte';
    import ValueInput from './ValueInput.svelte';
    import FormulaEditor from './words/FormulaEditor.svelte';
    import NumberEditor from './words/NumberEditor.svelte';
    import OfferEditor from './words/OfferEditor.svelte';
    import OperandEditor from './words/OperandEditor.svelte';
    import RecipientEditor from './words/RecipientEditor.svelte';
    import SetValueEditor from './words/SetValueEditor.svelte';
    import SetFieldEditor from './words/SetFieldEditor.svelte';
    import SpanEditor from './words/SpanEditor.svelte';
    import LimitEditor from './words/LimitEditor.svelte';
    import MomentEditor from './words/MomentEditor.svelte';
    import TimetableEditor from './words/TimetableEditor.svelte';
    import TimingEditor from './words/TimingEditor.svelte';

    /* Changes one word in place: each kind of edit has its own small editor. */
    type Props = { document: Document; word: Word; onclose: () => void };
    let { document: page, word, onclose }: Props = $props();

    const at = $derived(word.at ?? '');
    const node = $derived(split(at)[0]);
    const offers = (list: { kind: string; label: string }[] | undefined): Option[] =>
        (list ?? []).map((offer) => ({ key: offer.kind, label: offer.label }));
    const compared = $derived(comparedField(page, node, word.on));
    const own = $derived(page.at(`${node}/total`) === undefined && !textAt(page, `${node}/field`).includes('.'));
    const watched = $derived(session.field(word.on, String((page.at(`${node}/fields`) as Json[] | undefined)?.[0] ?? '')));
    const kept = $derived(session.field(word.on, textAt(page, `${node}/field`)));
    const problem = $derived(page.reading.problems.find((candidate) => candidate.at === at && candidate.position !== null));
    const mostNotes = $derived(/\/lines\/\d+\/text$/.test(at) ? 5000 : 2000);

    function finish(edit: Promise<unknown>) {
        void edit;
        onclose();
    }

    /** A span stands in an object of its own, or joins one that says more. */
    function span(value: { amount: number; unit: string }) {
        finish(page.edit((file) => put(file, at, { ...((valueAt(file, at) ?? {}) as JsonObject), ...value })));
    }
</script>

{#if word.edit === 'trigger'}
    <Choose
        title="A {session.type(page.type).label.toLowerCase()}"
        options={offers(session.schema?.triggers)}
        chosen={[textAt(page, '/when/kind')]}
        onchoose={([kind]) => finish(chooseTrigger(page, kind ?? 'created'))}
        {onclose}
    />
{:else if word.edit === 'watched_fields'}
    <Choose
        title={node === '/when' ? 'Changed in' : 'Columns'}
        many
        options={node === '/when' ? ownFields(word.on, (field) => !field.system) : fieldOptions(word.on)}
        chosen={(page.at(at) as string[] | undefined) ?? []}
        onchoose={(keys) => finish(node === '/when' ? chooseWatched(page, at, keys) : page.put(at, keys))}
        {onclose}
    />
{:else if word.edit === 'changed_value' && watched}
    {@const value = page.at(at)}
    <FieldValue
        type={word.on}
        field={watched}
        chosen={value === undefined || value === null ? [] : [value]}
        further={[{ key: ':any', label: 'any value', group: 'Or' }]}
        onchoose={(values) => finish(page.put(at, values[0]))}
        onfurther={() => finish(page.remove(at))}
        {onclose}
    />
{:else if word.edit === 'group'}
    <Choose
        title="Holds when"
        options={offers(session.schema?.groups)}
        chosen={[textAt(page, at)]}
        onchoose={([kind]) => finish(page.put(at, kind ?? 'all'))}
        {onclose}
    />
{:else if word.edit === 'field'}
    <Choose
        title="Field"
        options={[...fieldOptions(word.on), ...furtherSubjects(word.on, !page.isFilter, at.startsWith('/until'))]}
        chosen={[subjectOf(page, node)]}
        onchoose={([path]) => finish(chooseField(page, at, path ?? '', word.on))}
        {onclose}
    />
{:else if word.edit === 'operator' && compared}
    <Choose
        title={compared.label}
        options={offers(operatorsFor(compared, own && !page.isFilter))}
        chosen={[textAt(page, at)]}
        onchoose={([kind]) => finish(chooseOperator(page, at, kind ?? 'is'))}
        {onclose}
    />
{:else if word.edit === 'operand' && node.endsWith('/to')}
    <!-- A member that a line adds to a set, or takes out of it. -->
    {@const field = page.wordOf(`${split(node)[0]}/field`)}
    {#if field}
        {@const set = session.field(field.on, textAt(page, `${split(node)[0]}/field`))}
        {#if set}<FieldValue field={set} chosen={[]} onchoose={(values) => finish(page.put(at, values[0]))} {onclose} />{/if}
    {/if}
{:else if word.edit === 'operand' && compared}
    <OperandEditor
        document={page}
        {at}
        {node}
        on={word.on}
        field={operandField(textAt(page, `${node}/kind`), compared)}
        {own}
        many={operand(textAt(page, `${node}/kind`)) === 'many'}
        {onclose}
    />
{:else if word.edit === 'span'}
    {@const isShift = textAt(page, `${at}/kind`) === 'shift'}
    <SpanEditor span={page.at(at)} signed={isShift} daysOnly={compared?.type === 'date' && !isShift} ondone={span} />
{:else if word.edit === 'formula'}
    <FormulaEditor
        type={word.on}
        formula={textAt(page, at)}
        problem={problem && { message: problem.message, position: problem.position }}
        ondone={(formula) => finish(page.put(at, formula))}
    />
{:else if word.edit === 'guard'}
    <Choose
        title="Fires"
        options={offers(session.type(page.type).guards)}
        chosen={[textAt(page, `${at}/kind`)]}
        onchoose={([kind]) =>
            finish(textAt(page, `${at}/kind`) === kind ? Promise.resolve() : page.put(at, { kind: kind ?? 'every_time' }))}
        {onclose}
    />
{:else if word.edit === 'set_field'}
    <SetFieldEditor document={page} {at} on={word.on} {onclose} />
{:else if word.edit === 'set_value'}
    <SetValueEditor document={page} {at} on={word.on} {onclose} />
{:else if word.edit === 'title'}
    <TitleEditor
        type={word.on}
        title={textAt(page, at)}
        label={at.endsWith('/message')
            ? 'What the person reads'
            : textAt(page, `${node}/kind`) === 'remind'
              ? 'What the reminder says'
              : at.endsWith('/text')
                ? 'Text'
                : 'Title of the task'}
        ondone={(title) => finish(page.put(at, title))}
    />
{:else if word.edit === 'notes'}
    <TitleEditor
        type={word.on}
        title={textAt(page, at)}
        label={at.endsWith('/text') ? 'Comment' : 'Notes'}
        long
        most={mostNotes}
        ondone={(text) => finish(page.put(at, text || undefined))}
    />
{:else if word.edit === 'text'}
    <ValueInput
        field={{
            ...session.type(page.type).fields[0]!,
            type: 'text',
            label: at.endsWith('/subject') ? 'Subject' : 'Words in it',
            currency: null,
        }}
        value={textAt(page, at)}
        empty
        ondone={(text) => finish(page.put(at, text || undefined))}
    />
{:else if word.edit === 'number'}
    <NumberEditor
        type={word.on}
        value={page.at(at)}
        fields={at.endsWith('/amount')}
        ondone={(value) => finish(page.put(at, at.endsWith('/times') || at.endsWith('/days') ? Number(value) : value))}
        {onclose}
    />
{:else if word.edit === 'due'}
    <DueEditor type={word.on} due={page.at(at)} ondone={(due) => finish(page.put(at, due))} />
{:else if word.edit === 'timing'}
    <TimingEditor document={page} {at} {onclose} />
{:else if word.edit === 'moment'}
    <MomentEditor document={page} {at} {onclose} />
{:else if word.edit === 'timetable'}
    <TimetableEditor document={page} {at} {onclose} />
{:else if word.edit === 'quiet' || word.edit === 'cap'}
    <LimitEditor document={page} {at} {onclose} />
{:else if word.edit === 'kept_value' && kept}
    <FieldValue
        type={word.on}
        field={kept}
        chosen={page.at(at) === undefined ? [] : [page.at(at) ?? null]}
        onchoose={(values) => finish(page.put(at, values[0]))}
        {onclose}
    />
{:else if word.edit === 'recipients'}
    <RecipientEditor document={page} {at} {onclose} />
{:else if word.edit === 'offer'}
    <OfferEditor document={page} {at} title="Choose" {onclose} />
{:else}
    <p class="p-4 text-ink-2">Choose a field first.</p>
{/if}
