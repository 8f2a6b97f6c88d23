<script lang="ts">
    import type { Document } from '../state/document.svelte';
    import { split, type Json } from '../state/pointer';
    import { session } from '../state/session.svelte';
    import Choose from './Choose.svelte';
    import DueEditor from './DueEditor.svelte';
    import { chooseField, chooseOperator, chooseSetField, chooseTrigger, personExpression, personKey, textAt, type Word } from './editors';
    import FieldValue from './FieldValue.svelte';
    import { fieldOptions, operand, operatorsFor, peopleOptions } from './offers';
    import type { Option } from './options';
    import TitleEditor from './TitleEditor.svelte';

    type Props = { document: Document; word: Word; onclose: () => void };
    let { document: page, word, onclose }: Props = $props();

    const at = $derived(word.at ?? '');
    const node = $derived(split(at)[0]);
    const offers = (list: { kind: string; label: string }[] | undefined): Option[] =>
        (list ?? []).map((offer) => ({ key: offer.kind, label: offer.label }));
    const people = $derived<Option[]>([
        { key: 'owner', label: 'the owner', group: 'From the record' },
        { key: 'creator', label: 'the creator', group: 'From the record' },
        { key: 'manager:owner', label: 'the owner’s manager', group: 'From the record' },
        { key: 'manager:creator', label: 'the creator’s manager', group: 'From the record' },
        { key: 'manager:manager:owner', label: 'the owner’s manager’s manager', group: 'From the record' },
        ...peopleOptions(),
    ]);
    const compared = $derived(session.path(page.type, textAt(page, `${node}/field`))?.field);
    const setField = $derived(session.field(page.type, textAt(page, `${node}/field`)));
    const own = $derived(!textAt(page, `${node}/field`).includes('.'));
    let copying = $state(false);

    /** Besides a value: what else the field can be set to. */
    const further = $derived.by((): Option[] => {
        if (!setField) return [];
        return [
            ...(setField.type === 'date' ? [{ key: ':now', label: 'today', group: 'Or' }] : []),
            ...(setField.type === 'date_time' ? [{ key: ':now', label: 'now', group: 'Or' }] : []),
            ...(setField.type === 'person'
                ? people
                      .filter((option) => option.group === 'From the record')
                      .map((option) => ({ ...option, key: `:person:${option.key}` }))
                : []),
            ...(setField.required || setField.type === 'tick' ? [] : [{ key: ':clear', label: 'empty', group: 'Or' }]),
            { key: ':copy', label: 'the value of another field…', group: 'Or' },
        ];
    });

    function finish(edit: Promise<void>) {
        void edit;
        onclose();
    }

    function choseValue(values: Json[]) {
        finish(page.put(at, { kind: 'value', value: values[0] ?? null }));
    }

    function choseFurther(key: string) {
        if (key === ':copy') copying = true;
        else if (key.startsWith(':person:')) finish(page.put(at, { kind: 'person', person: personExpression(key.slice(8)) }));
        else finish(page.put(at, { kind: key === ':now' ? 'now' : 'clear' }));
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
        title="Changed in"
        many
        options={fieldOptions(page.type, (field) => !field.system).filter((option) => !option.key.includes('.'))}
        chosen={(page.at(at) as string[] | undefined) ?? []}
        onchoose={(keys) => finish(page.put(at, keys.length ? keys : undefined))}
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
        options={fieldOptions(page.type)}
        chosen={[textAt(page, at)]}
        onchoose={([path]) => finish(chooseField(page, at, path ?? ''))}
        {onclose}
    />
{:else if word.edit === 'operator' && compared}
    <Choose
        title={compared.label}
        options={offers(operatorsFor(compared))}
        chosen={[textAt(page, at)]}
        onchoose={([kind]) => finish(chooseOperator(page, at, kind ?? 'is'))}
        {onclose}
    />
{:else if word.edit === 'operand' && compared}
    {@const many = operand(textAt(page, `${node}/kind`)) === 'many'}
    {@const value = page.at(at)}
    <FieldValue
        type={own ? page.type : undefined}
        field={compared}
        {many}
        chosen={Array.isArray(value) ? value : value === undefined || value === null ? [] : [value]}
        onchoose={(values) => finish(page.put(at, many ? values : (values[0] ?? undefined)))}
        {onclose}
    />
{:else if word.edit === 'guard'}
    <Choose
        title="Fires"
        options={offers(session.type(page.type).guards)}
        chosen={[textAt(page, `${at}/kind`)]}
        onchoose={([kind]) => finish(page.put(at, { kind: kind ?? 'every_time' }))}
        {onclose}
    />
{:else if word.edit === 'set_field'}
    <Choose
        title="Set"
        options={fieldOptions(page.type, (field) => !field.system).filter((option) => !option.key.includes('.'))}
        chosen={[textAt(page, at)]}
        onchoose={([name]) => finish(chooseSetField(page, at, name ?? ''))}
        {onclose}
    />
{:else if word.edit === 'set_value' && setField}
    {#if copying}
        <Choose
            title="Copy from"
            options={fieldOptions(page.type, (field) => field.type === setField.type && field.target === setField.target)}
            onchoose={([from]) => finish(page.put(at, { kind: 'copy', from: from ?? '' }))}
            {onclose}
        />
    {:else}
        {@const value = page.at(`${at}/value`)}
        <FieldValue
            type={page.type}
            field={setField}
            chosen={value === undefined || value === null ? [] : [value]}
            {further}
            onchoose={choseValue}
            onfurther={choseFurther}
            {onclose}
        />
    {/if}
{:else if word.edit === 'person'}
    <Choose
        title="Who"
        options={people}
        chosen={[personKey(page.at(at))]}
        onchoose={([key]) => finish(page.put(at, personExpression(key ?? 'owner')))}
        {onclose}
    />
{:else if word.edit === 'title'}
    <TitleEditor type={page.type} title={textAt(page, at)} ondone={(title) => finish(page.put(at, title))} />
{:else if word.edit === 'due'}
    <DueEditor due={page.at(at)} ondone={(due) => finish(page.put(at, due))} />
{:else}
    <p class="p-4 text-ink-2">Choose a field first.</p>
{/if}
