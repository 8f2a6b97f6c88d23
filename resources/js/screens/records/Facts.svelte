<script lang="ts">
    import { isChangeable } from '../../state/changeable';
    import EditValue from './EditValue.svelte';
    import MergeDialog from './MergeDialog.svelte';
    import { inSections } from './sections';
    import StagePath from './StagePath.svelte';
    import type { Resources } from '../../api/client';
    import { Contact, Merge, Pencil, Trash2 } from '@lucide/svelte';
    import FieldRules from '../../parts/FieldRules.svelte';
    import Hint from '../../parts/Hint.svelte';
    import RunButton from '../../parts/RunButton.svelte';
    import Shown from '../../parts/Shown.svelte';
    import { dueDate, moment } from '../../state/moments';
    import Stamp from '../../parts/Stamp.svelte';
    import { session } from '../../state/session.svelte';
    import ActDialog from '../signoffs/ActDialog.svelte';
    import WaitsForYou from '../signoffs/WaitsForYou.svelte';
    import { say, within } from '../../state/words';

    type Props = {
        type: Resources['TypeResource'];
        record: Resources['RecordResource'];
        fresh: string[];
        /** The sign-off that keeps it locked. */
        lock?: Resources['SignOffResource'];
        /** Those that whoever looks at it is to decide. */
        waits?: Resources['SignOffResource'][];
        onedit: () => void;
        ondelete: () => void;
    };
    let { type, record, fresh, lock, waits = [], onedit, ondelete }: Props = $props();
    let releasing = $state(false);
    let merging = $state(false);
    const holders = $derived(
        (lock?.seats ?? [])
            .filter((seat) => seat.state === 'waiting')
            .map((seat) => seat.person)
            .join(say(' and ')),
    );
    let asked = $state.raw<{ field: Resources['FieldResource']; anchor: HTMLElement } | null>(null);
    const fields = $derived(type.fields.filter((field) => !field.system && field.name !== type.title));
    const status = $derived(type.fields.find((field) => field.name === 'status' || field.name === 'stage'));
    const standing = $derived(status?.choices.find((choice) => choice.value === record.values[status?.name ?? '']));
    const due = $derived(record.values.due && record.values.status !== 'closed' ? dueDate(String(record.values.due)) : null);

    let edited = $state.raw<{ field: Resources['FieldResource']; anchor: HTMLElement } | null>(null);
    const mayEdit = (field: Resources['FieldResource']) => !lock && record.may.includes('change') && isChangeable(field);
</script>

<header class="flex items-start gap-3">
    <div class="min-w-0 flex-1">
        <h1>{record.title}</h1>
        <p class="sub flex flex-wrap items-center gap-x-2">
            <span>{type.label} <span class="figures">{record.number}</span></span>
            {#if record.shown[type.owner]}<span>·</span><span>owner <b class="text-ink">{record.shown[type.owner]}</b></span>{/if}
            {#if standing}<Stamp tone={standing.tone ?? 'iris'}>{standing.label}</Stamp>{/if}
            {#if due?.tone}<Stamp tone={due.tone}>{due.tone === 'madder' ? due.text : `Due ${due.text}`}</Stamp>{/if}
        </p>
    </div>
    {#if record.may.includes('change') && lock}
        <Stamp tone="marigold">locked</Stamp>
    {:else}
        {#if record.may.includes('run')}<RunButton {type} records={[record.id]} />{/if}
        {#if record.may.includes('change')}<button type="button" class="btn" title="Edit (E)" onclick={onedit}>Edit</button>{/if}
        {#if type.fields.some((field) => field.type === 'email') && type.fields.some((field) => field.type === 'phone')}<a
                class="icon mt-1"
                aria-label="As a card"
                href="/api/records/{type.name}/{record.id}/card"
                download><Contact size={15} /></a
            ><Hint>As a card (.vcf)</Hint>{/if}
        {#if record.may.includes('delete') && record.may.includes('change')}<button
                type="button"
                class="icon mt-1"
                aria-label="Merge this {within(type.label)} with another"
                onclick={() => (merging = true)}><Merge size={15} /></button
            ><Hint>Merge with another…</Hint>{/if}
        {#if record.may.includes('delete')}<button
                type="button"
                class="icon mt-1"
                aria-label="Delete this {within(type.label)}"
                onclick={ondelete}><Trash2 size={15} /></button
            ><Hint>Delete…</Hint>{/if}
    {/if}
</header>
{#each waits as signOff (signOff.id)}<WaitsForYou {signOff} />{/each}
{#if lock}
    <p class="callout warn mx-7 my-3 text-[13px]">
        Locked since {moment(lock.startedAt)}. {#if holders}{holders} still must say whether to sign it off.{/if}
        <a class="link" href="/sign-offs">Sign-offs</a>
        {#if session.me?.mayEditRules}· <button type="button" class="link" onclick={() => (releasing = true)}>Release it…</button>{/if}
    </p>
{/if}
{#if type.stage !== null}<StagePath {type} {record} mayMove={!lock && record.may.includes('change')} />{/if}
<div class="scroll px-7 py-2">
    {#each inSections(fields) as [section, of] (section)}
        {#if section}<h2 class="mt-4 mb-1">{section}</h2>{/if}
        <dl>
            {#each of as field (field.name)}
                <div
                    class="grid grid-cols-[138px_minmax(0,1fr)] border-b border-ruled py-[7px]"
                    class:fresh={fresh.includes(field.name)}
                    data-field={field.name}
                >
                    <dt class="text-ink-2">
                        <button
                            type="button"
                            class="when text-left"
                            title="Which rules can change it?"
                            onclick={(event) => (asked = { field, anchor: event.currentTarget })}>{field.label}</button
                        >
                    </dt>
                    <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
                    <dd
                        class="group/value flex items-baseline gap-1 font-medium wrap-anywhere"
                        ondblclick={(event) => mayEdit(field) && (edited = { field, anchor: event.currentTarget })}
                    >
                        <Shown {record} {field} />
                        {#if mayEdit(field)}<button
                                type="button"
                                class="edit-value"
                                aria-label="Change {field.label}"
                                onclick={(event) => (edited = { field, anchor: event.currentTarget })}><Pencil size={12} /></button
                            >{/if}
                        {#if fresh.includes(field.name)}<span class="mini figures ml-1 text-marigold">set by a rule just now</span>{/if}
                    </dd>
                </div>
            {/each}
        </dl>
    {/each}
    <p class="mini py-3">
        Created {moment(String(record.values.created_at))} by {record.shown.created_by || say('nobody')} · last changed {moment(
            String(record.values.updated_at),
        )} by
        {record.shown.updated_by || say('nobody')}
    </p>
</div>

{#if releasing && lock}
    <ActDialog act="unlock" cases={[lock]} onclose={() => (releasing = false)} ondone={() => (releasing = false)} />
{/if}
{#if merging}<MergeDialog {type} {record} onclose={() => (merging = false)} />{/if}
{#if edited}<EditValue {type} {record} field={edited.field} anchor={edited.anchor} onclose={() => (edited = null)} />{/if}
{#if asked}<FieldRules type={type.name} field={asked.field} anchor={asked.anchor} onclose={() => (asked = null)} />{/if}
