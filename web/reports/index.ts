export { AddToReport } from './AddToReport.tsx'
export { ReportScreen } from './ReportScreen.tsx'
export { ReportsScreen } from './ReportsScreen.tsx'
