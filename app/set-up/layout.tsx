import { Components } from '@/interface/shared/Components'

export default Components
