import type { Component } from 'svelte';
import College from './college/College.svelte';
import CalendarPage from './calendar/CalendarPage.svelte';
import CheckPage from './check/CheckPage.svelte';
import Coverage from './coverage/Coverage.svelte';
import DriftPage from './coverage/DriftPage.svelte';
import RulesPage from './coverage/RulesPage.svelte';
import VariantsPage from './coverage/VariantsPage.svelte';
import Deliveries from './delivery/Deliveries.svelte';
import DeliveryPage from './delivery/DeliveryPage.svelte';
import EditPage from './delivery/EditPage.svelte';
import OrderPage from './delivery/OrderPage.svelte';
import ApiPage from './people/ApiPage.svelte';
import Myself from './people/Myself.svelte';
import Record from './people/Record.svelte';
import HandOversPage from './handover/HandOversPage.svelte';
import LedgerPage from './ledger/LedgerPage.svelte';
import PlanPrint from './delivery/PlanPrint.svelte';
import MySections from './section/MySections.svelte';
import NextTermPage from './term/NextTermPage.svelte';
import SeenPage from './section/SeenPage.svelte';
import SectionPage from './section/SectionPage.svelte';
import Library from './source/Library.svelte';
import BesidePage from './source/BesidePage.svelte';
import EditionPage from './source/EditionPage.svelte';
import MasterPage from './source/MasterPage.svelte';
import MergePage from './source/MergePage.svelte';
import Sources from './source/Sources.svelte';
import HostsPage from './tool/HostsPage.svelte';
import RulesOfLinks from './tool/RulesPage.svelte';
import RequestsPage from './tool/RequestsPage.svelte';

/** A page of the application; one of something stands below a path that ends in a slash. */
type Route =
  | { at: `/${string}/`; one: Component<{ id: string }>; instructors?: boolean }
  | { at: string; page: Component; instructors?: boolean };

/** The first that fits counts; what instructors do not see leads them to their sections. */
const routes: Route[] = [
  { at: '/myself', page: Myself, instructors: true },
  { at: '/api-description', page: ApiPage, instructors: true },
  { at: '/sections/', one: SectionPage, instructors: true },
  { at: '/sources/editions/', one: EditionPage },
  { at: '/sources/library', page: Library },
  { at: '/sources/beside', page: BesidePage },
  { at: '/sources/merge/', one: MergePage },
  { at: '/sources/masters/', one: MasterPage },
  { at: '/sources', page: Sources },
  { at: '/deliveries/new', page: OrderPage },
  { at: '/deliveries/edit', page: EditPage },
  { at: '/deliveries/ledger', page: LedgerPage },
  { at: '/deliveries/print/', one: PlanPrint },
  { at: '/deliveries/', one: DeliveryPage },
  { at: '/deliveries', page: Deliveries },
  { at: '/coverage/rules', page: RulesPage },
  { at: '/checks', page: CheckPage },
  { at: '/next-term', page: NextTermPage },
  { at: '/seen/', one: SeenPage, instructors: true },
  { at: '/coverage/items/', one: VariantsPage },
  { at: '/coverage/drift/', one: DriftPage },
  { at: '/tools/rules', page: RulesOfLinks },
  { at: '/tools/requests', page: RequestsPage },
  { at: '/tools', page: HostsPage },
  { at: '/calendar', page: CalendarPage },
  { at: '/hand-overs', page: HandOversPage },
  { at: '/college', page: College },
  { at: '/record', page: Record },
];

export type Found =
  { one: Component<{ id: string }>; id: string } | { page: Component; one?: undefined };

/** The page of a path. */
export function found(path: string, coordinates: boolean): Found {
  for (const r of routes) {
    if (!path.startsWith(r.at) || !(coordinates || r.instructors)) continue;
    if ('page' in r) return { page: r.page };
    const id = path.slice(r.at.length);
    if (id) return { one: r.one, id };
  }
  return { page: coordinates ? Coverage : MySections };
}
