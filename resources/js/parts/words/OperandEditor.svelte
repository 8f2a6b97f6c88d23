<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import type { Json, JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import Choose from '../Choose.svelte';
    import { personExpression, textAt } from '../editors';
    import FieldValue from '../FieldValue.svelte';
    import { fieldOptions, MOMENTS, NUMBERS, personOptions, takesGiven, type Field } from '../offers';
    import type { Option } from '../options';
    import SpanEditor from './SpanEditor.svelte';

    /* What a field is compared with: a value, another field, somebody found, or a date that moves. */
    type Props = {
        document: Document;
        at: string;
        node: string;
        on: string;
        field: Field;
        own: boolean;
        many: boolean;
        onclose: () => void;
    };
    let { document: page, at, node, on, field, own, many, onclose }: Props = $props();

    const value = $derived(page.at(at));
    const given = $derived(typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as JsonObject) : null);
    const may = $derived(takesGiven(textAt(page, `${node}/kind`)));
    // What is found is changed as it was found; a plain value is one step away.
    // svelte-ignore state_referenced_locally
    let asking = $state<'field' | 'span' | null>(
        given?.kind === 'field' ? 'field' : given?.kind === 'moment' && given.amount !== 0 ? 'span' : null,
    );
    const further = $derived.by((): Option[] => {
        if (!may) return [];
        const now = field.type === 'date' ? 'today' : 'now';
        return [
            ...(MOMENTS.includes(field.type)
                ? [
                      { key: ':now', label: now, group: 'Or' },
                      { key: ':span', label: `a time before or after ${now}…`, group: 'Or' },
                  ]
                : []),
            ...(field.type === 'person' ? personOptions(on).filter((option) => !/^(turn|least):/.test(option.key)) : []).map((option) => ({
                ...option,
                key: `:person:${option.key}`,
            })),
            { key: ':field', label: 'another field…', group: 'Or' },
        ];
    });
    const alike = (other: Field) =>
        NUMBERS.includes(field.type)
            ? NUMBERS.includes(other.type)
            : ['text', 'email', 'phone', 'link', 'long_text'].includes(field.type)
              ? ['text', 'email', 'phone', 'link', 'long_text'].includes(other.type)
              : other.type === field.type && other.target === field.target;

    function finish(next: Json | undefined) {
        void page.put(at, next);
        onclose();
    }

    function choseFurther(key: string) {
        if (key === ':field') asking = 'field';
        else if (key === ':span') asking = 'span';
        else if (key === ':now') finish({ kind: 'moment', amount: 0, unit: 'day' });
        else finish({ kind: 'person', person: personExpression(key.slice(8)) });
    }
</script>

{#if asking === 'field'}
    <Choose
        title="Compare with"
        options={[...fieldOptions(on, alike), { key: ':value', label: 'a value…', group: 'Or' }]}
        chosen={given?.kind === 'field' ? [String(given.path)] : []}
        onchoose={([path]) => (path === ':value' ? (asking = null) : finish({ kind: 'field', path: path ?? '' }))}
        {onclose}
    />
{:else if asking === 'span'}
    <SpanEditor
        span={given}
        signed
        daysOnly={field.type === 'date'}
        before="ago"
        after="from {field.type === 'date' ? 'today' : 'now'}"
        ondone={(span) => finish({ kind: 'moment', ...span })}
        onother={() => (asking = null)}
    />
{:else}
    <FieldValue
        type={own && session.field(on, field.name) ? on : undefined}
        {field}
        {many}
        chosen={Array.isArray(value) ? value : value === undefined || value === null || given ? [] : [value]}
        {further}
        typedFirst={!MOMENTS.includes(field.type)}
        onfurther={choseFurther}
        onchoose={(values) => finish(many ? values : values[0])}
        {onclose}
    />
{/if}
