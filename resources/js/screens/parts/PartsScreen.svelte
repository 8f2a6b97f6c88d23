<script lang="ts">
    import { Checkbox, Input, Radio, Select } from 'flowbite-svelte';
    import Choose from '../../parts/Choose.svelte';
    import Confirm from '../../parts/Confirm.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import SearchField from '../../parts/fields/SearchField.svelte';
    import Floating from '../../parts/Floating.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import Hint from '../../parts/Hint.svelte';
    import Tabs from '../../parts/Tabs.svelte';
    import Pages from '../lists/Pages.svelte';
    import { Eye } from '@lucide/svelte';

    /* Every part in every state, for whoever builds screens: what stands here is what all screens are made of. */
    crumbs.set({ label: 'Parts' });
    let text = $state('Ficus wall');
    let long = $state('Three of the planters\nwant water.');
    let choice = $state('normal');
    let ticked = $state(true);
    let group = $state<string[]>(['lobby']);
    let way = $state('both');
    let day = $state('2026-11-24');
    let moment = $state('2026-11-24T09:30');
    let searched = $state('');
    let file = $state('');
    let segment = $state('Table');
    let turned = $state(7);
    let tab = $state('All');
    let dialog = $state(false);
    let panel = $state<HTMLElement | null>(null);
    let picked = $state('');
</script>

{#snippet part(name: string, hint: string)}
    <h2 class="mt-6 mb-2">{name} <span class="mini font-sans">{hint}</span></h2>
{/snippet}

<div class="spread">
    <section class="leaf solo">
        <header>
            <h1>Parts</h1>
            <p class="sub">What the screens are made of, in every state.</p>
        </header>
        <div class="scroll px-7 pb-8 text-[13px]">
            {@render part('Text', 'one line, several, for a search, disabled, wrong')}
            <div class="grid gap-3 min-[700px]:grid-cols-2">
                <Input aria-label="Text" bind:value={text} />
                <Input aria-label="Text, empty" placeholder="What it is called" />
                <Input aria-label="Text, disabled" value="Kept by a rule" disabled />
                <div>
                    <Input aria-label="Text, wrong" aria-invalid={true} value="12,5,0" aria-describedby="wrong" />
                    <p class="note-wrong" id="wrong">It takes a number such as 12.50.</p>
                </div>
                <Area aria-label="Several lines" rows={2} bind:value={long} />
                <SearchField label="Search" value={searched} onsearch={(typed) => (searched = typed)} />
            </div>
            <p class="mini mt-1" data-part="search">{searched ? `Searched for “${searched}”.` : 'Nothing is searched for.'}</p>

            {@render part('Choices', 'a list, a tick, several, one of a few')}
            <div class="grid items-start gap-3 min-[700px]:grid-cols-2">
                <Select placeholder="" aria-label="Priority" bind:value={choice}>
                    <option value="low">Low</option><option value="normal">Normal</option><option value="high">High</option>
                </Select>
                <Select placeholder="" aria-label="Priority, disabled" disabled value="low"><option value="low">Low</option></Select>
                <Checkbox bind:checked={ticked}>Under care contract</Checkbox>
                <Checkbox checked disabled>Kept by a rule</Checkbox>
                <fieldset class="flex gap-4">
                    <legend class="sr-only">Spaces</legend>
                    <Checkbox value="lobby" bind:group>Lobby</Checkbox><Checkbox value="spa" bind:group>Spa</Checkbox>
                </fieldset>
                <fieldset class="flex gap-4">
                    <legend class="sr-only">What rows may do</legend>
                    <Radio name="way" value="both" bind:group={way}>both</Radio><Radio name="way" value="create" bind:group={way}
                        >make only</Radio
                    >
                </fieldset>
            </div>
            <p class="mini mt-1" data-part="choices">{choice}, {ticked ? 'ticked' : 'not ticked'}, {group.join(' and ')}, {way}</p>

            {@render part('Dates', 'typed as they are said, stepped by ↑ ↓, picked by Alt ↓; a day, a moment, bounded, wrong, disabled')}
            <div class="grid gap-3 min-[700px]:grid-cols-2">
                <DateField label="A day" bind:value={day} />
                <DateField label="A moment" time bind:value={moment} />
                <DateField label="Not before today" value="" min="2026-11-24" />
                <DateField label="A wrong day" value="2026-11-24" invalid />
                <DateField label="A disabled day" value="2026-11-24" disabled />
            </div>
            <p class="mini mt-1 figures" data-part="dates">{day} {moment}</p>

            {@render part('Buttons', 'go, plain, quiet, of danger, disabled; links; a file')}
            <div class="flex flex-wrap items-center gap-3">
                <button type="button" class="btn go" onclick={() => toasts.tell('It is done.')}>Go</button>
                <button type="button" class="btn">Plain</button><button type="button" class="btn quiet">Quiet</button>
                <button type="button" class="btn danger" onclick={() => toasts.complain('It cannot be done.')}>Danger</button>
                <button type="button" class="btn" disabled>Disabled</button><button type="button" class="link">A link</button>
                <FileButton says="A file" onchoose={(chosen) => (file = chosen.name)} /><span class="mini">{file}</span>
                <span class="segments" role="group" aria-label="Layout"
                    >{#each ['Table', 'Board'] as one (one)}<button
                            type="button"
                            aria-pressed={segment === one}
                            onclick={() => (segment = one)}>{one}</button
                        >{/each}</span
                >
            </div>
            <div class="mt-3">
                <Tabs
                    tabs={['All', 'Mine'].map((one) => ({ key: one, label: one }))}
                    chosen={tab}
                    onchoose={(one) => (tab = one)}
                    label="Tabs"
                >
                    {#snippet children(shown)}<p class="mini py-2" data-part="tab">{shown} is shown.</p>{/snippet}
                </Tabs>
            </div>
            <div class="flex items-center gap-3 text-[13px]">
                <button type="button" class="icon" aria-label="Look at it"><Eye size={15} /></button><Hint>What the button does</Hint>
                <Pages page={turned} pages={20} onturn={(page) => (turned = page)} />
            </div>

            {@render part('Over the page', 'a dialog, a panel with a list')}
            <div class="flex flex-wrap gap-3">
                <button type="button" class="btn" onclick={() => (dialog = true)}>A dialog…</button>
                <button type="button" class="btn" onclick={(event) => (panel = event.currentTarget)}>A list…</button>
                <span class="mini my-auto" data-part="list">{picked || 'Nothing is chosen.'}</span>
            </div>

            {@render part('Words', 'what is told, and in which tone')}
            <div class="grid gap-2">
                <p class="flex flex-wrap gap-2">
                    {#each ['fern', 'marigold', 'madder', 'harbor', 'iris'] as tone (tone)}<Stamp {tone}>{tone}</Stamp>{/each}
                    <span class="chip">a tag</span><span class="word person">Ines Okafor</span>
                </p>
                <p class="callout">Something to know.</p>
                <p class="callout warn">Something to mind.</p>
                <p class="callout bad" role="alert">Something is wrong, and what to do about it.</p>
                <div class="empty">
                    <h2>Nothing is pencilled in.</h2>
                    <p>What comes next is shown here.</p>
                </div>
            </div>
        </div>
    </section>
</div>
{#if dialog}
    <Confirm title="Delete T-0042?" go="Delete" danger onconfirm={() => (dialog = false)} onclose={() => (dialog = false)}>
        <p>Its history stays, and it can be brought back under its own number.</p>
        <DateField label="A day in a dialog" bind:value={day} />
    </Confirm>
{/if}
{#if panel}
    <Floating anchor={panel} label="A list" onclose={() => (panel = null)}>
        <Choose
            title="Depot"
            options={['Quayside', 'Hillgate', 'Birchmoor'].map((one) => ({ key: one, label: one }))}
            onchoose={([key = '']) => ((picked = key), (panel = null))}
            onclose={() => (panel = null)}
        />
    </Floating>
{/if}
