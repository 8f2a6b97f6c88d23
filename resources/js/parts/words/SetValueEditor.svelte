<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import { split, type Json } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import Choose from '../Choose.svelte';
    import { personExpression, textAt } from '../editors';
    import FieldValue from '../FieldValue.svelte';
    import { fieldOptions, MOMENTS, NUMBERS, personOptions, SETS } from '../offers';
    import type { Option } from '../options';

    /* What a field becomes: a value, or one of the other ways to come by one. */
    type Props = { document: Document; at: string; on: string; onclose: () => void };
    let { document: page, at, on, onclose }: Props = $props();

    const node = $derived(split(at)[0]);
    const target = $derived(page.targetOf(node) ?? on);
    const field = $derived(session.field(target, textAt(page, `${node}/field`)));
    const making = $derived(textAt(page, `${node.replace(/\/set\/\d+$/, '')}/kind`) === 'create_record');
    let copying = $state(false);

    const ways = $derived.by((): Option[] => {
        if (!field) return [];
        const group = 'Or';
        const way = (kind: string, label: string): Option => ({ key: `:${kind}`, label, group });
        return [
            ...(field.type === 'date' ? [way('now', 'today')] : []),
            ...(field.type === 'date_time' ? [way('now', 'now')] : []),
            ...(MOMENTS.includes(field.type) ? [way('shift', 'a date before or after another…')] : []),
            ...(NUMBERS.includes(field.type) && !making
                ? [way('add', 'what it is plus…'), way('subtract', 'what it is minus…'), way('multiply', 'what it is times…')]
                : []),
            ...(SETS.includes(field.type) && !making
                ? [way('add_member', 'what it is with…'), way('remove_member', 'what it is without…')]
                : []),
            ...(['text', 'long_text'].includes(field.type) ? [way('text', 'text with merged fields…')] : []),
            ...(field.type === 'long_text' && !making ? [way('append', 'what it is, and a line below…')] : []),
            ...(field.target === page.type ? [way('this', `this ${session.type(page.type).label.toLowerCase()}`)] : []),
            ...(field.target ? [way('made', 'the record that a line above makes')] : []),
            ...(field.type === 'person' ? personOptions(on).map((option) => ({ ...option, key: `:person:${option.key}` })) : []),
            ...(SETS.includes(field.type) ? [] : [way('formula', 'a formula…')]),
            ...(field.required || field.type === 'tick' || making ? [] : [way('clear', 'empty')]),
            way('copy', 'the value of another field…'),
        ];
    });

    function finish(to: Json) {
        void page.put(at, to);
        onclose();
    }

    function chose(key: string) {
        const kind = key.slice(1);
        if (kind === 'copy') copying = true;
        else if (key.startsWith(':person:')) finish({ kind: 'person', person: personExpression(key.slice(8)) });
        else if (kind === 'made') finish({ kind, as: page.made(node).find((made) => made.type === field?.target)?.name ?? '' });
        else finish({ kind });
    }
</script>

{#if !field}
    <p class="p-4 text-ink-2">Choose a field first.</p>
{:else if copying}
    <Choose
        title="Copy from"
        options={fieldOptions(on, (other) => other.type === field.type && other.target === field.target)}
        onchoose={([from]) => finish({ kind: 'copy', from: from ?? '' })}
        {onclose}
    />
{:else}
    {@const value = page.at(`${at}/value`)}
    <FieldValue
        type={target}
        {field}
        chosen={value === undefined || value === null ? [] : [value]}
        further={ways}
        onchoose={(values) => finish({ kind: 'value', value: values[0] ?? null })}
        onfurther={chose}
        {onclose}
    />
{/if}
