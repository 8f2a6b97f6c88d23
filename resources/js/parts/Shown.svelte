<script lang="ts">
    import type { Resources } from '../api/client';
    import { session } from '../state/session.svelte';
    import { moment } from '../state/moments';

    /* One value of a record as it is read: a link for a reference, a tone for a choice, the figures face for figures. */
    type Props = {
        record: Resources['RecordResource'];
        field: Resources['FieldResource'];
        /** Where its value stands: under its name, or under the path that leads to it. */
        of?: string;
        plain?: boolean;
    };
    let { record, field, of = field.name, plain = false }: Props = $props();
    const value = $derived(record.values[of]);
    const text = $derived(record.shown[of] ?? '');
    const tone = $derived(field.type === 'choice' ? field.choices.find((choice) => choice.value === value)?.tone : null);
    const figures = $derived(['number', 'money', 'percent', 'date', 'date_time'].includes(field.type));
</script>

{#if field.type === 'tick'}
    <span class={value ? '' : 'text-ink-3'}>{value ? 'Yes' : 'No'}</span>
{:else if value === null || value === undefined}
    <span class="text-ink-3" aria-label="empty">–</span>
{:else if field.type === 'reference' && !plain}
    <a class="font-medium text-iris hover:underline" href="/records/{field.target}/{value}">{text}</a>
{:else if field.type === 'link' && !plain}
    <a class="text-iris hover:underline" href={text} rel="noreferrer noopener" target="_blank">{text}</a>
{:else if field.type === 'email' && !plain}
    <a class="text-iris hover:underline" href="mailto:{text}">{text}</a>
{:else if field.type === 'person'}
    {@const person = session.people.find((candidate) => candidate.id === value)}
    <span class={person?.active === false ? 'line-through' : ''}>{text}</span>
{:else if field.type === 'date_time'}
    <span class="figures">{moment(String(value))}</span>
{:else if field.type === 'tags' || field.type === 'choices'}
    <span class="inline-flex flex-wrap gap-1"
        >{#each String(value).split(',') as member (member)}<span class="chip"
                >{field.choices.find((choice) => choice.value === member)?.label ?? member}</span
            >{/each}</span
    >
{:else if tone}
    <span class="font-semibold tone-{tone}">{text}</span>
{:else if field.type === 'long_text'}
    <span class="whitespace-pre-wrap">{text}</span>
{:else}
    <span class={figures ? 'figures text-[0.95em]' : ''}>{text}</span>
{/if}
